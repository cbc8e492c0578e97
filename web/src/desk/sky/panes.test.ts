import { describe, expect, it } from "vitest";
import { Scale } from "../scale";
import { paneHeight, panesOf, placed } from "./panes";

const reading = {
  heights: [
    { to_px: 599, typical_px: 640 },
    { to_px: 1023, typical_px: 1024 },
    { to_px: 9999, typical_px: 800 },
  ],
} as never;

describe("panes", () => {
  it("stand in the order of their widths, the moving one among them", () => {
    const widths = panesOf(reading, new Scale(320, 2560), 900).map((p) => p.width);
    expect(widths).toEqual([360, 768, 900, 1280, 1920]);
  });
  it("leave out widths that the site does not have", () => {
    expect(panesOf(reading, new Scale(500, 1400), 600).map((p) => p.width)).toEqual([
      600, 768, 1280,
    ]);
  });
  it("take the place of one of the cursor's own width", () => {
    const panes = panesOf(reading, new Scale(320, 2560), 768);
    expect(panes.map((p) => [p.width, p.follows])).toEqual([
      [360, false],
      [768, true],
      [1280, false],
      [1920, false],
    ]);
  });
  it("spread over the whole width", () => {
    const panes = panesOf(reading, new Scale(320, 2560), 632);
    const { panes: at, scrolls } = placed(panes, 120, 1680, 0);
    const last = at.at(-1);
    expect(scrolls).toBe(false);
    expect((last?.x ?? 0) + (last?.w ?? 0)).toBeCloseTo(1680 - 20);
  });
  it("fit side by side, all equally tall", () => {
    for (const cursor of [320, 632, 1024, 1600, 2560]) {
      const panes = panesOf(reading, new Scale(320, 2560), cursor);
      const tall = paneHeight(panes, 1280, 400);
      const used =
        panes.reduce((sum, p) => sum + (tall * p.width) / p.height, 0) +
        16 * (panes.length - 1) +
        40;
      expect(used).toBeLessThanOrEqual(1280 + (cursor > 2000 ? 160 : 0));
    }
  });
  it("keep their size while the moving one stays upright", () => {
    const at = (cursor: number) =>
      paneHeight(panesOf(reading, new Scale(320, 2560), cursor), 1280, 400);
    expect(at(400)).toBe(at(590));
    expect(at(400)).toBe(at(1000));
  });
});
