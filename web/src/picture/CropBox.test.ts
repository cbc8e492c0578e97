import { describe, expect, it } from "vitest";
import { drawn, movedWhole, pulled } from "./CropBox";

const NONE = { w: 0, h: 0 };
const least = (w: number) => ({ w, h: 0.45 });
const half = { x: 0.25, y: 0.25, w: 0.5, h: 0.5 };

describe("a crop pulled at a corner", () => {
  it("keeps its ratio and the opposite corner", () => {
    expect(pulled(half, "nw", 0.1, 0, 1, NONE)).toEqual({ x: 0.35, y: 0.35, w: 0.4, h: 0.4 });
    expect(pulled(half, "se", 0.02, 0.1, 1, NONE)).toEqual({ x: 0.25, y: 0.25, w: 0.6, h: 0.6 });
  });
  it("ends at the picture's edge, the ratio still held", () => {
    expect(pulled({ x: 0.25, y: 0.5, w: 0.5, h: 0.25 }, "se", 0.9, 0, 0.5, NONE)).toEqual({
      x: 0.25,
      y: 0.5,
      w: 0.75,
      h: 0.375,
    });
  });
  it("stops at the least share that stays sharp", () => {
    expect(pulled(half, "se", -0.4, 0, 1, least(0.3)).w).toBe(0.3);
    expect(pulled(half, "nw", 0.4, 0, undefined, least(0.3))).toEqual({
      x: 0.45,
      y: 0.25,
      w: 0.3,
      h: 0.5,
    });
  });
  it("stops at the least height where no ratio is held", () => {
    expect(pulled(half, "se", -0.1, -0.4, undefined, least(0.3))).toEqual({
      x: 0.25,
      y: 0.25,
      w: 0.4,
      h: 0.45,
    });
  });
  it("takes any ratio where none is held", () => {
    expect(pulled(half, "ne", 0.1, -0.1, undefined, NONE)).toEqual({
      x: 0.25,
      y: 0.15,
      w: 0.6,
      h: 0.6,
    });
  });
});

describe("a crop drawn", () => {
  it("reaches from where the drag began to where it is, in any direction", () => {
    expect(drawn([0.2, 0.3], [0.6, 0.5], undefined, NONE)).toEqual({
      x: 0.2,
      y: 0.3,
      w: 0.4,
      h: 0.2,
    });
    expect(drawn([0.6, 0.5], [0.2, 0.3], undefined, NONE)).toEqual({
      x: 0.2,
      y: 0.3,
      w: 0.4,
      h: 0.2,
    });
  });
  it("has the ratio that is held, whatever the picture had before", () => {
    expect(drawn([0.1, 0.1], [0.5, 0.2], 0.5, NONE)).toEqual({ x: 0.1, y: 0.1, w: 0.4, h: 0.2 });
    expect(drawn([0.5, 0.5], [0.45, 0.1], 0.5, NONE)).toEqual({ x: 0, y: 0.25, w: 0.5, h: 0.25 });
  });
  it("is no smaller than what stays sharp", () => {
    expect(drawn([0.1, 0.1], [0.12, 0.11], 0.5, least(0.3))).toEqual({
      x: 0.1,
      y: 0.1,
      w: 0.3,
      h: 0.15,
    });
  });
});

describe("a crop moved", () => {
  it("keeps its size to the last digit and stays inside", () => {
    expect(movedWhole({ x: 0, y: 0, w: 0.49917, h: 0.3 }, 2, -1)).toEqual({
      x: 0.50083,
      y: 0,
      w: 0.49917,
      h: 0.3,
    });
  });
});
