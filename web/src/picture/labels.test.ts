import { describe, expect, it } from "vitest";
import type { Area } from "./areas";
import { LABEL_HEIGHT, labelsOf, TAG_PX, tagsOf } from "./labels";

const area = (name: string, x: number, y: number, w = 0.1, h = 0.1): Area =>
  ({ name, rect: { x, y, w, h } }) as Area;

const apart = (areas: Area[], width: number, height: number) => {
  const at = labelsOf(areas, width, height);
  for (const [i, a] of at.entries()) {
    if (!a) continue;
    expect(a.left).toBeGreaterThanOrEqual(0);
    expect(a.left + a.width).toBeLessThanOrEqual(width + 1e-9);
    expect(a.top + LABEL_HEIGHT).toBeLessThanOrEqual(height + 1e-9);
    for (const b of at.slice(i + 1))
      if (b)
        expect(
          a.left + a.width <= b.left ||
            b.left + b.width <= a.left ||
            a.top + LABEL_HEIGHT <= b.top ||
            b.top + LABEL_HEIGHT <= a.top,
        ).toBe(true);
  }
  return at;
};

describe("names of areas on the map", () => {
  it("stand under their area where that is free", () => {
    expect(labelsOf([area("Mast", 0.5, 0.5)], 400, 200)).toEqual([
      { left: 200, top: 120, width: expect.any(Number) },
    ]);
  });
  it("never cover one another, even where areas lie on each other", () => {
    const same = ["Sail boat", "Green boat", "Yellow boat", "Red boat", "Hull"].map((n) =>
      area(n, 0.4, 0.4),
    );
    expect(apart(same, 420, 230).every(Boolean)).toBe(true);
  });
  it("stay on the picture at its edges", () => {
    apart(
      [
        area("A rather long name of an area", 0.95, 0.95, 0.05, 0.05),
        area("Corner", 0, 0, 0.01, 0.01),
      ],
      300,
      180,
    );
  });
  it("keep apart wherever areas are", () => {
    let seed = 7;
    const random = () => {
      seed = (seed * 16807) % 2147483647;
      return seed / 2147483647;
    };
    for (let n = 0; n < 60; n++)
      apart(
        Array.from({ length: 12 }, (_, i) =>
          area(`Area number ${i}`, random() * 0.8, random() * 0.8, 0.2, 0.2),
        ),
        440,
        250,
      );
  });
  it("leave out what there is no room for", () => {
    const many = Array.from({ length: 40 }, (_, i) => area(`Area ${i}`, 0.4, 0.4));
    expect(apart(many, 120, 60).filter(Boolean).length).toBeLessThan(40);
  });
});

describe("letters of spans on the map", () => {
  it("stand in the corners of their outlines", () => {
    expect(
      tagsOf(
        [
          { x: 0, y: 0, w: 1, h: 1 },
          { x: 0.5, y: 0.5, w: 0.2, h: 0.2 },
        ],
        400,
        200,
      ),
    ).toEqual([
      { left: 0, top: 0 },
      { left: 200, top: 100 },
    ]);
  });
  it("never cover one another, however little their outlines differ", () => {
    for (const step of [0, 0.01, 0.03, 0.07]) {
      const tags = tagsOf(
        Array.from({ length: 8 }, (_, i) => ({
          x: 0.9 - i * step,
          y: i * step * 0.5,
          w: 0.1 + i * step,
          h: 0.5,
        })),
        393,
        262,
      );
      for (const [i, a] of tags.entries())
        for (const b of tags.slice(i + 1))
          expect(
            Math.max(Math.abs(a.left - b.left), Math.abs(a.top - b.top)),
          ).toBeGreaterThanOrEqual(TAG_PX - 1e-9);
    }
  });
});
