import { renderHook } from "@testing-library/react";
import { expect, it, vi } from "vitest";
import type { Part } from "../api/queries";
import { AS_USUAL, under } from "./conditions";
import { useConditions } from "./useConditions";
import type { DraftHandle } from "./useDraft";
import type { Place } from "./usePlace";

const PARTS = [
  { key: "a" },
  { key: "b" },
  { of: "a", when: ["dark"] },
  { of: "b", when: ["dark"] },
] as unknown as Part[];

function at(part: number) {
  const put = vi.fn();
  const handle = { draft: { placement: { parts: PARTS } } } as unknown as DraftHandle;
  const place = { part, conditions: AS_USUAL } as Place;
  return { put, ...renderHook(() => useConditions(handle, place, put)).result.current };
}

it("the part that then shows is the one that is worked on", () => {
  const { put, setConditions } = at(1);
  setConditions(under(["dark"]));
  expect(put).toHaveBeenLastCalledWith({ conditions: under(["dark"]), part: 3 });
});

it("a finding under conditions leads to its own part, whichever is worked on", () => {
  const { put, setConditions } = at(0);
  setConditions(under(["dark"]), 3);
  expect(put).toHaveBeenCalledOnce();
  expect(put).toHaveBeenLastCalledWith({ conditions: under(["dark"]), part: 3 });
});
