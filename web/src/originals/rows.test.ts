import { describe, expect, it } from "vitest";
import { rowsOf } from "./rows";

const lay = (ratios: number[], width = 1000) => rowsOf(ratios, (r) => r, width, 200, 20);

describe("a wall of pictures", () => {
  it("fills every row but the last, and keeps every picture in order", () => {
    const rows = lay([1.5, 1.5, 1.5, 1, 0.7, 2.2, 1.8]);
    expect(rows.flatMap((r) => r.cells.map((c) => c.item))).toEqual([
      1.5, 1.5, 1.5, 1, 0.7, 2.2, 1.8,
    ]);
    for (const row of rows.slice(0, -1)) {
      const used = row.cells.reduce((a, c) => a + c.width, 0) + 20 * (row.cells.length - 1);
      expect(used).toBeCloseTo(1000, 6);
      for (const c of row.cells) expect(c.width / row.height).toBeCloseTo(c.item, 6);
    }
  });
  it("never draws one wider than the wall, nor so narrow that its words are cut", () => {
    const [wide] = lay([9]);
    expect(wide?.cells[0]?.width).toBe(1000);
    const [narrow] = lay([0.1]);
    expect(narrow?.cells[0]?.width).toBe(112);
  });
  it("has no rows without pictures", () => expect(lay([])).toEqual([]));
});
