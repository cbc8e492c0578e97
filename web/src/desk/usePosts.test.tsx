import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, renderHook } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { client } from "../api/client";
import type { Site } from "../api/queries";
import type { DraftHandle } from "./useDraft";
import { usePosts } from "./usePosts";

interface Put {
  breakpoints: number[];
  revision: number;
  answer: (status?: number, detail?: string) => Promise<void>;
}

const puts: Put[] = [];
const put = (n: number) => puts[n] as Put;
const site = (breakpoints: number[], revision = 1) =>
  ({ id: 1, name: "Tern Point", revision, plan: { breakpoints } }) as unknown as Site;

beforeEach(() => {
  vi.useFakeTimers();
  puts.length = 0;
  vi.spyOn(client, "GET").mockImplementation((async () => ({
    data: { id: 7, revision: 2 },
    response: new Response(),
  })) as never);
  vi.spyOn(client, "PUT").mockImplementation(
    ((_: string, { body }: { body: { revision: number; plan: { breakpoints: number[] } } }) =>
      new Promise((resolve) => {
        const { revision, plan } = body;
        puts.push({
          breakpoints: plan.breakpoints,
          revision,
          answer: (status = 200, detail = "") =>
            act(async () =>
              resolve({
                ...(status === 200
                  ? { data: site(plan.breakpoints, revision + 1) }
                  : { error: { type: "", title: "", status, detail } }),
                response: new Response(null, { status }),
              }),
            ),
        });
      })) as never,
  );
});

afterEach(() => {
  cleanup();
  vi.useRealTimers();
  vi.restoreAllMocks();
});

function desk(save: () => Promise<boolean> = async () => true) {
  const queries = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  );
  const handle = { save: vi.fn(save), takeTheirs: vi.fn() };
  const hook = renderHook(() => usePosts(site([600, 1000]), 7, handle as unknown as DraftHandle), {
    wrapper,
  });
  return { now: () => hook.result.current, handle, unmount: hook.unmount };
}

const pass = (ms: number) => act(() => vi.advanceTimersByTimeAsync(ms));

describe("posts", () => {
  it("show where they are dragged, and are kept when they are let go", async () => {
    const { now } = desk();
    act(() => now().drag([610, 1000]));
    expect(now().dragged?.breakpoints).toEqual([610, 1000]);
    expect(puts).toHaveLength(0);
    await act(async () => now().keep([620, 1000]));
    expect(put(0).breakpoints).toEqual([620, 1000]);
    await put(0).answer();
    expect(now().dragged).toBeUndefined();
  });

  it("that are moved on while they are kept are kept after that, the last place alone", async () => {
    const { now } = desk();
    await act(async () => now().keep([610, 1000]));
    await act(async () => now().keep([620, 1000]));
    await act(async () => now().keep([630, 1000]));
    expect(puts).toHaveLength(1);
    await put(0).answer();
    expect(puts.map((p) => [p.breakpoints[0], p.revision])).toEqual([
      [610, 1],
      [630, 2],
    ]);
    expect(now().dragged?.breakpoints).toEqual([630, 1000]);
    await put(1).answer();
    expect(now().dragged).toBeUndefined();
  });

  it("that are moved by keys wait for the last key", async () => {
    const { now } = desk();
    act(() => now().keep([601, 1000], true));
    await pass(300);
    act(() => now().keep([602, 1000], true));
    await pass(349);
    expect(puts).toHaveLength(0);
    await pass(1);
    expect(puts.map((p) => p.breakpoints[0])).toEqual([602]);
  });

  it("that were moved last are kept when the desk is left", async () => {
    const { now, unmount } = desk();
    act(() => now().keep([605, 1000], true));
    await act(async () => unmount());
    expect(puts.map((p) => p.breakpoints[0])).toEqual([605]);
  });

  it("of another number carry the placement over, which is saved before and read after", async () => {
    const { now, handle } = desk();
    await act(async () => now().keep([600, 800, 1000]));
    expect(now().carrying).toBe(true);
    expect(handle.save).toHaveBeenCalledOnce();
    await put(0).answer();
    expect(handle.takeTheirs).toHaveBeenCalledWith({ id: 7, revision: 2 });
    expect(now().carrying).toBe(false);
  });

  it("of another number are left alone where the placement cannot be saved", async () => {
    const { now } = desk(async () => false);
    await act(async () => now().keep([600, 800, 1000]));
    expect(puts).toHaveLength(0);
    expect(now().error).toContain("not saved yet");
    expect([now().carrying, now().dragged]).toEqual([false, undefined]);
  });

  it("that were moved elsewhere stay there, and why is said until it is tried again", async () => {
    const { now } = desk();
    await act(async () => now().keep([610, 1000]));
    await act(async () => now().keep([620, 1000]));
    await put(0).answer(409, "The site was changed elsewhere.");
    expect(now().error).toBe("The site was changed elsewhere.");
    expect([now().dragged, puts.length]).toEqual([undefined, 1]);
    await act(async () => now().keep([640, 1000]));
    await put(1).answer();
    expect(now().error).toBeUndefined();
  });
});
