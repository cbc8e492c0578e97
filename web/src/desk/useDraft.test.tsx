import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { client } from "../api/client";
import type { Placement } from "../api/queries";
import { useDraft } from "./useDraft";

interface Put {
  name: string;
  revision: number;
  answer: (status: number, body: object) => Promise<void>;
  lost: () => Promise<void>;
}

const puts: Put[] = [];
const put = (n: number) => puts[n] as Put;

const loaded = (revision = 1, name = "Lighthouse") =>
  ({
    id: 7,
    site_id: 1,
    revision,
    look_revisions: {},
    placement: { name, kind: "picture", parts: [{ treatments: {} }] },
    looks: {},
  }) as unknown as Placement;

beforeEach(() => {
  vi.useFakeTimers();
  puts.length = 0;
  vi.spyOn(client, "GET").mockImplementation((async () => ({
    data: { versions: [], at: 0 },
    response: new Response(),
  })) as never);
  vi.spyOn(client, "PUT").mockImplementation(
    ((_: string, { body }: { body: { revision: number; placement: { name: string } } }) =>
      new Promise((resolve, reject) => {
        puts.push({
          name: body.placement.name,
          revision: body.revision,
          answer: (status, told) =>
            act(async () =>
              resolve({
                [status < 300 ? "data" : "error"]: told,
                response: new Response(null, { status }),
              }),
            ),
          lost: () => act(async () => reject(new TypeError("Failed to fetch"))),
        });
      })) as never,
  );
});

afterEach(() => {
  cleanup(); // what waits there is saved as it goes
  vi.useRealTimers();
  vi.restoreAllMocks();
});

function desk(keeps = true) {
  const queries = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  );
  /** Each picture of the desk that was drawn: the name, and whether it is told to be saved. */
  const drawn: [string, string][] = [];
  const hook = renderHook(
    () => {
      const handle = useDraft(loaded(), 0, keeps);
      drawn.push([handle.draft.placement.name, handle.saving.kind]);
      return handle;
    },
    { wrapper },
  );
  const now = () => hook.result.current;
  return {
    now,
    drawn,
    name: (name: string) =>
      act(() => now().change((d) => ({ ...d, placement: { ...d.placement, name } }))),
    unmount: hook.unmount,
  };
}

const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));
const saved = (revision: number) => ({ revision, look_revisions: {} });

describe("what is changed", () => {
  it("is saved once it has been left alone for a moment, all of it at once", async () => {
    const { now, name } = desk();
    name("One");
    await pass(300);
    name("Two");
    expect(now().saving.kind).toBe("waiting");
    await pass(499);
    expect(puts).toHaveLength(0);
    await pass(1);
    expect(puts.map((p) => p.name)).toEqual(["Two"]);
    expect(now().saving.kind).toBe("saving");
    await put(0).answer(200, saved(2));
    expect(now().saving.kind).toBe("saved");
    await pass(10_000);
    expect(puts).toHaveLength(1);
  });

  it("is never shown as saved before it is, not for one picture", async () => {
    const { drawn, name } = desk();
    name("Lamp");
    await pass(500);
    await put(0).answer(200, saved(2));
    expect(drawn.at(-1)).toEqual(["Lamp", "saved"]);
    const first = drawn.findIndex(([shown]) => shown === "Lamp");
    expect(drawn[first]).toEqual(["Lamp", "waiting"]);
  });

  it("while a save is under way is saved after it, as a change of what that has made", async () => {
    const { now, name } = desk();
    name("One");
    await pass(500);
    name("Two");
    await put(0).answer(200, saved(2));
    expect(now().saving.kind).not.toBe("saved");
    await pass(1000);
    expect(puts.map((p) => [p.name, p.revision])).toEqual([
      ["One", 1],
      ["Two", 2],
    ]);
  });

  it("is saved when the desk is left", async () => {
    const { name, unmount } = desk();
    name("One");
    await act(async () => unmount());
    expect(puts.map((p) => p.name)).toEqual(["One"]);
  });

  it("is not saved by whoever may only look", async () => {
    const { now, name, unmount } = desk(false);
    name("One");
    await pass(2000);
    await act(async () => unmount());
    expect(puts).toHaveLength(0);
    expect(now().draft.placement.name).toBe("One");
    expect(now().saving.kind).toBe("looking");
  });

  it("is saved no more where it has been undone", async () => {
    const { now, name } = desk();
    name("One");
    act(() => now().undo());
    await pass(2000);
    expect(puts).toHaveLength(0);
    expect(now().saving.kind).toBe("saved");
  });
});

describe("what cannot be saved", () => {
  it("without a connection waits for it, and goes at once when it is back", async () => {
    const { now, name } = desk();
    name("One");
    await pass(500);
    await put(0).lost();
    expect(now().saving.kind).toBe("retrying");
    await act(async () => void window.dispatchEvent(new Event("online")));
    await put(1).answer(200, saved(2));
    expect(now().saving.kind).toBe("saved");
    expect(puts.map((p) => p.name)).toEqual(["One", "One"]);
  });

  it("for a fault of the server is tried again, with what was changed since", async () => {
    const { now, name } = desk();
    name("One");
    await pass(500);
    await put(0).answer(503, { type: "", title: "", status: 503, detail: "The database is away." });
    expect(now().saving.kind).toBe("retrying");
    name("Two");
    await pass(4000);
    await put(1).answer(200, saved(2));
    expect(now().saving.kind).toBe("saved");
    expect(put(1).name).toBe("Two");
    await pass(10_000);
    expect(puts).toHaveLength(2);
  });

  it("because it is refused says why and is not sent again until it is another", async () => {
    const { now, name } = desk();
    name("");
    await pass(500);
    await put(0).answer(422, { type: "", title: "", status: 422, detail: "Say a name." });
    expect(now().saving).toMatchObject({ kind: "refused", error: { message: "Say a name." } });
    await pass(10_000);
    expect(puts).toHaveLength(1);
    name("One");
    await pass(500);
    await put(1).answer(200, saved(2));
    expect(now().saving.kind).toBe("saved");
  });
});

describe("a conflict", () => {
  const conflict = async () => {
    const at = desk();
    at.name("Mine");
    await pass(500);
    await put(0).answer(409, {
      type: "",
      title: "",
      status: 409,
      detail: "It was saved elsewhere.",
      theirs: loaded(5, "Theirs"),
      errors: [{ field: "name", sentence: "The name differs." }],
    });
    return at;
  };

  it("stops saving, and loses nothing", async () => {
    const { now, name } = await conflict();
    expect(now().saving).toMatchObject({
      kind: "conflict",
      said: "It was saved elsewhere.",
      differs: ["The name differs."],
    });
    name("Mine still");
    await pass(10_000);
    expect(puts).toHaveLength(1);
    expect(now().draft.placement.name).toBe("Mine still");
  });

  it("is over with mine, saved over theirs", async () => {
    const { now } = await conflict();
    act(() => now().keepMine(loaded(5, "Theirs")));
    await pass(500);
    expect([put(1).name, put(1).revision]).toEqual(["Mine", 5]);
    await put(1).answer(200, saved(6));
    expect(now().saving.kind).toBe("saved");
  });

  it("is over with theirs, and mine is a step back", async () => {
    const { now } = await conflict();
    await act(async () => now().takeTheirs(loaded(5, "Theirs")));
    expect([now().draft.placement.name, now().saving.kind]).toEqual(["Theirs", "saved"]);
    await pass(10_000);
    expect(puts).toHaveLength(1);
  });
});
