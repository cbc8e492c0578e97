import { describe, expect, it } from "vitest";
import type { PlacementBody } from "../api/queries";
import { type Draft, withCommon, withItem, withItems, withMoved, withoutItem } from "./draft";

const LOOK = { focal: [0.5, 0.5] as [number, number], areas: [] };
const draft = (...originals: number[]): Draft => ({
  looks: {},
  placement: {
    name: "Nine",
    kind: "grid",
    common: {},
    layout: {},
    parts: originals.map((original) => ({
      role: null,
      item: null,
      alt: null,
      ladders: {},
      treatments: { D: { original } },
    })),
  } as unknown as PlacementBody,
});
const shown = (d: Draft) => d.placement.parts.map((p) => p.treatments.D?.original);

describe("items", () => {
  it("are added at the end, and in place of one that is empty", () => {
    const empty = {
      ...draft(1),
      placement: {
        ...draft(1).placement,
        parts: [{ ...draft(1).placement.parts[0], treatments: {} }],
      },
    };
    expect(
      shown(
        withItems(draft(1), "D", [
          { id: 2, look: LOOK },
          { id: 1, look: LOOK },
        ]),
      ),
    ).toEqual([1, 2, 1]);
    expect(shown(withItems(empty as Draft, "D", [{ id: 7, look: LOOK }]))).toEqual([7]);
  });

  it("keep what belongs to them when they are moved", () => {
    const titled = withItem(draft(1, 2, 3), 0, { title: "First" });
    const moved = withMoved(titled, 0, 2);
    expect(shown(moved)).toEqual([2, 3, 1]);
    expect(moved.placement.parts[2]?.item?.title).toBe("First");
    expect(shown(withMoved(titled, 9, 0))).toEqual([1, 2, 3]);
  });

  it("leave an empty one behind when the last is removed", () => {
    expect(shown(withoutItem(draft(1, 2), 0))).toEqual([2]);
    expect(withoutItem(draft(1), 0).placement.parts).toMatchObject([
      { treatments: {}, item: null },
    ]);
  });

  it("all do what is said for all, whatever they said themselves", () => {
    const own = draft(1, 2);
    const parts = own.placement.parts.map((p) => ({
      ...p,
      treatments: { ...p.treatments, B: { fit: "contain" as const, whole: true } },
    }));
    const before = { ...own, placement: { ...own.placement, parts } };
    const after = withCommon(before, "B", { fit: "cover" });
    expect(after.placement.common.B).toEqual({ fit: "cover" });
    expect(after.placement.parts.map((p) => p.treatments.B)).toEqual([
      { whole: true },
      { whole: true },
    ]);
    expect(withCommon(after, "B", { fit: undefined }).placement.common.B).toEqual({});
    // what another span says stays
    expect(shown(after)).toEqual([1, 2]);
  });
});
