import { describe, expect, it } from "vitest";
import {
  type Area,
  added,
  between,
  changed,
  duplicated,
  freeName,
  inside,
  moved,
  pulled,
  removed,
  renaming,
} from "./areas";

const rect = { x: 0.2, y: 0.2, w: 0.2, h: 0.2 };
const areas: Area[] = [
  { name: "Tower", kind: "keep", rect, least_px: null, lettering: false },
  { name: "Boat", kind: "keep", rect, least_px: null, lettering: false },
];

describe("rectangles on a picture", () => {
  it("stay inside, their size kept", () => {
    expect(moved(rect, 5, -5)).toEqual({ x: 0.8, y: 0, w: 0.2, h: 0.2 });
    expect(inside({ x: -1, y: 0.5, w: 3, h: 0.2 })).toEqual({ x: 0, y: 0.5, w: 1, h: 0.2 });
  });
  it("are pulled by a corner while the opposite one stays", () => {
    expect(pulled(rect, "se", 0.1, 0.05)).toEqual({ x: 0.2, y: 0.2, w: 0.3, h: 0.25 });
    expect(pulled(rect, "nw", -0.1, 0.1)).toEqual({ x: 0.1, y: 0.3, w: 0.3, h: 0.1 });
  });
  it("turn over when a corner is pulled across", () => {
    expect(pulled(rect, "se", -0.3, 0)).toEqual({ x: 0.1, y: 0.2, w: 0.1, h: 0.2 });
  });
  it("are drawn between two points in any direction and never vanish", () => {
    expect(between(0.6, 0.7, 0.2, 0.3)).toEqual({ x: 0.2, y: 0.3, w: 0.4, h: 0.4 });
    expect(between(0.5, 0.5, 0.5, 0.5).w).toBeGreaterThan(0);
  });
});

describe("lists of areas", () => {
  it("name new ones freely", () => {
    expect(freeName(areas, "Boat")).toBe("Boat 2");
    expect(
      added(added(areas, "quiet", rect), "quiet", rect)
        .map((a) => a.name)
        .slice(2),
    ).toEqual(["Quiet area", "Quiet area 2"]);
  });
  it("duplicate beside the original, and change and remove one", () => {
    expect(duplicated(areas, 0).map((a) => a.name)).toEqual(["Tower", "Tower 2", "Boat"]);
    expect(changed(areas, 1, { name: "Ship" })[1]?.name).toBe("Ship");
    expect(removed(areas, 0).map((a) => a.name)).toEqual(["Boat"]);
  });
  it("knows a renaming from any other change", () => {
    const [boat] = areas;
    expect(renaming(areas, changed(areas, 0, { name: "Ship" }))).toEqual([boat?.name, "Ship"]);
    expect(renaming(areas, areas)).toBeUndefined();
    expect(renaming(areas, [...areas].reverse())).toBeUndefined();
    expect(renaming(areas, areas.slice(1))).toBeUndefined();
  });
});
