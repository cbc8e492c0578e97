import { act, renderHook } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { client } from "../api/client";
import type { Asked } from "./asking";
import { AS_USUAL } from "./conditions";
import type { Draft } from "./draft";
import { useReading } from "./useReading";

/** What is on its way, by the last word of its address. */
interface Call {
  what: string;
  signal: AbortSignal;
  answer: (body: object) => Promise<void>;
  refuse: (status: number, detail: string) => Promise<void>;
  lost: () => Promise<void>;
}

const calls: Call[] = [];
const call = (n: number) => calls[n] as Call;

beforeEach(() => {
  vi.useFakeTimers();
  calls.length = 0;
  vi.spyOn(client, "POST").mockImplementation(
    ((path: string, { signal }: { signal: AbortSignal }) =>
      new Promise((resolve, reject) => {
        signal.addEventListener("abort", () => reject(new DOMException("gone", "AbortError")));
        calls.push({
          what: path.split("/").at(-1) ?? "",
          signal,
          answer: (data) => act(async () => resolve({ data, response: new Response() })),
          refuse: (status, detail) =>
            act(async () =>
              resolve({
                error: { type: "", title: "", status, detail },
                response: new Response(null, { status }),
              }),
            ),
          lost: () => act(async () => reject(new TypeError("Failed to fetch"))),
        });
      })) as never,
  );
});

afterEach(() => {
  vi.useRealTimers();
  vi.restoreAllMocks();
});

const WHOLE = { parts: { 0: { spans: [], bands: [] } }, layout: {} };
const MOVING = {
  parts: {},
  pane: null,
  one_of: null,
  verdicts: [],
  words: null,
  items: null,
  logo: null,
};

const asked = (name: string, more: Partial<Asked> = {}): Asked => ({
  siteId: 1,
  placementId: 2,
  draft: { placement: { name }, looks: {} } as unknown as Draft,
  plan: undefined,
  part: 0,
  chosen: "A",
  costs: false,
  words: true,
  every: false,
  scrollbar: 0,
  conditions: AS_USUAL,
  stamp: 1,
  stored: undefined,
  moves: true,
  ...more,
});

describe("while something moves", () => {
  it("is never kept waiting by all that was asked for while it stood still", async () => {
    const { rerender } = renderHook((a: Asked) => useReading(a, undefined), {
      initialProps: asked("first", { moves: false }),
    });
    await call(0).answer(WHOLE);
    rerender(asked("moved"));
    await call(1).answer(MOVING);
    await act(() => vi.advanceTimersByTimeAsync(200));
    expect(calls.map((c) => c.what)).toEqual(["readings", "moving", "readings"]);
    // it moves on before all is answered
    await act(async () => rerender(asked("further")));
    expect(calls.map((c) => c.what)).toEqual(["readings", "moving", "readings", "moving"]);
    expect(call(2).signal.aborted).toBe(true);
    await call(3).answer(MOVING);
    await act(() => vi.advanceTimersByTimeAsync(200));
    expect(calls.map((c) => c.what).slice(4)).toEqual(["readings"]);
  });

  it("is told what is older, until all is read", async () => {
    const { result, rerender } = renderHook((a: Asked) => useReading(a, undefined), {
      initialProps: asked("first", { moves: false }),
    });
    await call(0).answer(WHOLE);
    expect(result.current.pending).toBe("nothing");
    const moved = asked("moved");
    rerender(moved);
    expect(result.current.pending).toBe("all");
    await call(1).answer(MOVING);
    expect(result.current.pending).toBe("rest");
    await act(() => vi.advanceTimersByTimeAsync(200));
    await call(2).answer(WHOLE);
    expect(result.current.pending).toBe("nothing");
    expect(calls).toHaveLength(3);
  });

  it("asks for nothing more when the desk is left", async () => {
    const { rerender, unmount } = renderHook((a: Asked) => useReading(a, undefined), {
      initialProps: asked("first", { moves: false }),
    });
    await call(0).answer(WHOLE);
    rerender(asked("moved"));
    await act(async () => unmount());
    await act(() => vi.advanceTimersByTimeAsync(500));
    expect(calls).toHaveLength(2);
    expect(call(1).signal.aborted).toBe(true);
  });
});

describe("what cannot be read", () => {
  it("says why, with the last reading still there, until it is another", async () => {
    const { result, rerender } = renderHook((a: Asked) => useReading(a, undefined), {
      initialProps: asked("first", { moves: false }),
    });
    await call(0).answer(WHOLE);
    rerender(asked("too small", { moves: false }));
    await call(1).refuse(422, "The banner has no room.");
    expect(result.current.error?.message).toBe("The banner has no room.");
    expect([result.current.pending, result.current.reading === undefined]).toEqual([
      "nothing",
      false,
    ]);
    rerender(asked("larger", { moves: false }));
    await call(2).answer(WHOLE);
    expect(result.current.error).toBeUndefined();
  });

  it("because nobody answers says so, and the next change is asked for as ever", async () => {
    const { result, rerender } = renderHook((a: Asked) => useReading(a, undefined), {
      initialProps: asked("first", { moves: false }),
    });
    await call(0).answer(WHOLE);
    rerender(asked("moved"));
    await call(1).lost();
    expect(result.current.error?.status).toBe(0);
    await act(async () => rerender(asked("further")));
    await call(2).answer(MOVING);
    expect(result.current.error).toBeUndefined();
  });
});
