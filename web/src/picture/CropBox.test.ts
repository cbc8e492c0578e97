import { describe, expect, it } from "vitest";
import { movedWhole, pulledHeld } from "./CropBox";

const half = { x: 0.25, y: 0.25, w: 0.5, h: 0.5 };

describe("a crop pulled at a corner", () => {
  it("keeps its ratio and the opposite corner", () => {
    expect(pulledHeld(half, "nw", 0.1, 0, true, 0)).toEqual({ x: 0.35, y: 0.35, w: 0.4, h: 0.4 });
    expect(pulledHeld(half, "se", 0.02, 0.1, true, 0)).toEqual({ x: 0.25, y: 0.25, w: 0.6, h: 0.6 });
  });
  it("ends at the picture's edge, the ratio still held", () => {
    expect(pulledHeld({ x: 0.25, y: 0.5, w: 0.5, h: 0.25 }, "se", 0.9, 0, true, 0)).toEqual({
      x: 0.25,
      y: 0.5,
      w: 0.75,
      h: 0.375,
    });
  });
  it("stops at the least share that stays sharp", () => {
    expect(pulledHeld(half, "se", -0.4, 0, true, 0.3).w).toBe(0.3);
    expect(pulledHeld(half, "nw", 0.4, 0, false, 0.3)).toEqual({ x: 0.45, y: 0.25, w: 0.3, h: 0.5 });
  });
  it("takes any ratio where none is held", () => {
    expect(pulledHeld(half, "ne", 0.1, -0.1, false, 0)).toEqual({ x: 0.25, y: 0.15, w: 0.6, h: 0.6 });
  });
});

describe("a crop moved", () => {
  it("keeps its size to the last digit and stays inside", () => {
    expect(movedWhole({ x: 0, y: 0, w: 0.49917, h: 0.3 }, 2, -1)).toEqual({ x: 0.50083, y: 0, w: 0.49917, h: 0.3 });
  });
});
