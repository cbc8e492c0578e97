import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { renderHook, waitFor } from "@testing-library/react";
import type { ReactNode } from "react";
import { afterEach, expect, it, vi } from "vitest";
import { client } from "./client";
import { useOriginals } from "./queries";

afterEach(() => vi.restoreAllMocks());

it("come in parts, one after the other, each of them once", async () => {
  // one is brought after the first part was answered: the last of that part comes again
  const ids = Array.from({ length: 450 }, (_, i) => 450 - i);
  const asked: number[] = [];
  vi.spyOn(client, "GET").mockImplementation((async (
    _: string,
    { params }: { params: { query: { skip: number; most: number } } },
  ) => {
    const { skip, most } = params.query;
    const now = asked.length ? [451, ...ids] : ids;
    asked.push(skip);
    return { data: now.slice(skip, skip + most).map((id) => ({ id })), response: new Response() };
  }) as never);
  const queries = new QueryClient();
  const wrapper = ({ children }: { children: ReactNode }) => (
    <QueryClientProvider client={queries}>{children}</QueryClientProvider>
  );
  const { result } = renderHook(() => useOriginals(1), { wrapper });
  expect(result.current).toMatchObject({ isPending: true, isAll: false, data: undefined });
  await waitFor(() => expect(result.current.isAll).toBe(true));
  expect(asked).toEqual([0, 200, 400]);
  expect(result.current.data?.map((o) => o.id)).toEqual(ids);
});
