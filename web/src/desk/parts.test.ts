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
import { usualAt, variantAt, variantsOf } from "./parts";

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
/** The second has another picture in portrait. */
const plain = items(1, 2, 3);
const two: Draft = {
  ...plain,
  placement: {
    ...plain.placement,
    parts: [
      ...plain.placement.parts.map((p, i) => (i === 1 ? { ...p, key: "1" } : p)),
      { ...NEW_PART, of: "1", when: ["portrait"], treatments: { D: { original: 9 } } },
    ],
  },
};

describe("what stands in for a picture under conditions", () => {
  it("is found by the part that it stands in for, and by its conditions", () => {
    const { parts } = two.placement;
    expect([variantAt(parts, 1, ["portrait"]), variantAt(parts, 1, ["dark"])]).toEqual([3, -1]);
    expect([variantsOf(parts, 1), usualAt(parts, 3)]).toEqual([[3], 1]);
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
});
