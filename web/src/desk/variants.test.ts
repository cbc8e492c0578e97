import { describe, expect, it } from "vitest";
import type { PlacementBody } from "../api/queries";
import {
  type Draft,
  NEW_PART,
  withCopy,
  withItems,
  withMoved,
  withoutItem,
  withRole,
} from "./draft";
import { usualAt, variantAt, variantsOf, whenWords } from "./parts";
import { withoutIdle, withVariant } from "./variants";

const LOOK = { focal: [0.5, 0.5] as [number, number], areas: [] };
const items = (...ids: number[]): Draft => ({
  placement: {
    parts: ids.map((id) => ({ ...NEW_PART, treatments: { D: { original: id } } })),
    layout: {},
    common: {},
  } as unknown as PlacementBody,
  looks: {},
});
const told = (d: Draft) =>
  d.placement.parts.map((p) => {
    const of =
      p.of == null
        ? ""
        : ` for ${d.placement.parts[d.placement.parts.findIndex((o) => o.key === p.of)]?.treatments.D?.original}`;
    return `${p.treatments.D?.original}${of}`;
  });
const two = withVariant(items(1, 2, 3), 1, ["portrait"], "D", { show: "picture", original: 9 });

describe("what stands in for a picture under conditions", () => {
  it("is a part after all others, and one under the same conditions", () => {
    expect(told(two)).toEqual(["1", "2", "3", "9 for 2"]);
    const again = withVariant(two, 1, ["portrait"], "D", { original: 8 });
    expect(told(again)).toEqual(["1", "2", "3", "8 for 2"]);
    expect(told(withVariant(again, 1, ["dark"], "D", { original: 7 }))).toEqual([
      "1",
      "2",
      "3",
      "8 for 2",
      "7 for 2",
    ]);
    expect([
      variantAt(two.placement.parts, 1, ["portrait"]),
      variantAt(two.placement.parts, 1, ["dark"]),
    ]).toEqual([3, -1]);
    expect([variantsOf(two.placement.parts, 1), usualAt(two.placement.parts, 3)]).toEqual([[3], 1]);
  });
  it("stays with its item when that is moved, and goes with it", () => {
    expect(told(withMoved(two, 1, 0))).toEqual(["2", "1", "3", "9 for 2"]);
    expect(told(withMoved(two, 0, 2))).toEqual(["2", "3", "1", "9 for 2"]);
    expect(told(withoutItem(two, 1))).toEqual(["1", "3"]);
    expect(told(withoutItem(two, 0))).toEqual(["2", "3", "9 for 2"]);
  });
  it("comes after items and parts that are added, and a copy has none", () => {
    expect(told(withItems(two, "D", [{ id: 4, look: LOOK }]))).toEqual([
      "1",
      "2",
      "3",
      "4",
      "9 for 2",
    ]);
    expect(told(withCopy(two, 1))).toEqual(["1", "2", "2", "3", "9 for 2"]);
    const marked = withRole(two, "mark", { ...NEW_PART, treatments: { D: { original: 5 } } });
    expect(told(marked)).toEqual(["1", "2", "3", "5", "9 for 2"]);
  });
  it("goes where it says nothing any more", () => {
    const idle = withVariant(two, 1, ["portrait"], "D", { show: "usual", original: undefined });
    expect(told(withoutIdle(idle, 3))).toEqual(["1", "2", "3"]);
    expect(told(withoutIdle(two, 3))).toEqual(told(two));
  });
  it("is called after what has to hold", () => {
    expect(whenWords(["dark", "portrait"])).toBe("in the dark and in portrait");
  });
});
