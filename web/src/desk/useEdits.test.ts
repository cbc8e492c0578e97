import { act, renderHook } from "@testing-library/react";
import { useRef, useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { client } from "../api/client";
import type { Draft } from "./draft";
import { useEdits } from "./useEdits";

interface Asked {
  name: string;
  answer: (name: string) => Promise<void>;
  refuse: () => Promise<void>;
}
const asked: Asked[] = [];
const nth = (n: number) => asked[n] as Asked;

beforeEach(() => {
  asked.length = 0;
  vi.spyOn(client, "POST").mockImplementation(
    ((_: string, { body }: { body: { placement: { name: string } } }) =>
      new Promise((resolve) => {
        const settle = (status: number, told: object) =>
          act(async () =>
            resolve({
              [status < 300 ? "data" : "error"]: told,
              response: new Response(null, { status }),
            }),
          );
        asked.push({
          name: body.placement.name,
          answer: (name) => settle(200, { name }),
          refuse: () =>
            settle(422, { type: "", title: "", status: 422, detail: "There is no span H." }),
        });
      })) as never,
  );
});
afterEach(() => vi.restoreAllMocks());

const draft = (name: string) => ({ placement: { name }, looks: {} }) as unknown as Draft;

function desk() {
  const hook = renderHook(() => {
    const [state, set] = useState(draft("a"));
    const now = useRef(state);
    now.current = state;
    return { ...useEdits(1, now, set), name: state.placement.name, looks: state.looks, set };
  });
  const now = () => hook.result.current;
  const give = (original: number) =>
    act(
      async () =>
        void now().edit({ kind: "original", part: 0, letter: "A", original }, { [original]: LOOK }),
    );
  return { now, give };
}
const LOOK = { focal: [0.5, 0.5] as [number, number], areas: [] };

describe("an edit", () => {
  it("is what the server makes of the draft, with what originals look like", async () => {
    const { now, give } = desk();
    await give(7);
    expect(now()).toMatchObject({ name: "a", busy: true });
    await nth(0).answer("a with 7");
    expect(now()).toMatchObject({ name: "a with 7", busy: false });
    expect(now().looks).toEqual({ 7: LOOK });
  });
  it("is made anew where something has been changed meanwhile", async () => {
    const { now, give } = desk();
    await give(7);
    act(() => now().set(draft("b")));
    await nth(0).answer("a with 7");
    expect(now().name).toBe("b");
    expect(nth(1).name).toBe("b");
    await nth(1).answer("b with 7");
    expect(now().name).toBe("b with 7");
  });
  it("waits for the one before it", async () => {
    const { now, give } = desk();
    await give(7);
    await give(8);
    expect(asked).toHaveLength(1);
    await nth(0).answer("a with 7");
    expect(asked.at(-1)?.name).toBe("a with 7");
    await nth(asked.length - 1).answer("both");
    expect(now().name).toBe("both");
  });
  it("that cannot be had changes nothing, says why, and is no reason to refuse the next", async () => {
    const { now, give } = desk();
    await give(7);
    await nth(0).refuse();
    expect(now()).toMatchObject({ name: "a", refused: "There is no span H." });
    await give(8);
    expect(now().refused).toBeUndefined();
    await nth(1).answer("a with 8");
    expect(now().name).toBe("a with 8");
  });
  it("that is taken back before it is here is not made, nor what waits behind it", async () => {
    const { now, give } = desk();
    await give(7);
    await give(8);
    act(() => now().takeBack());
    await nth(0).answer("a with 7");
    expect(now()).toMatchObject({ name: "a", busy: false });
    expect(asked).toHaveLength(1);
    await give(9);
    await nth(1).answer("a with 9");
    expect(now().name).toBe("a with 9");
  });
});
