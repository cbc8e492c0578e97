import { describe, expect, it } from "vitest";
import type { Reading } from "../../../api/queries";
import { isAmong, winner } from "./wins";

const SPANS = [
  { letter: "A", first: 320, last: 599 },
  { letter: "B", first: 600, last: 2560 },
];
const taken = [
  { first: 320, last: 480, stem: "a@480w", name: "a@480w.avif", width_px: 480 },
  { first: 481, last: 599, stem: "a@800w", name: "a@800w.avif", width_px: 800 },
];
const reading = {
  spans: SPANS,
  files: [{ formats: [{ name: "a@480w.avif" }, { name: "a@480w.webp" }, { name: "a@800w.avif" }] }],
  parts: {
    0: {
      bands: [
        { kind: "sharp", density: 1, taken },
        { kind: "sharp", density: 2, taken: [] },
      ],
    },
  },
} as unknown as Reading;

const widths = (text: string, spans: string[] = [], density = 1) =>
  winner(reading, density)({ text, spans }).map((r) => [r.first, r.last]);

describe("the widths at which a line of code wins", () => {
  it("are those at which a file that it names is taken", () => {
    expect(widths('srcset="images/a@480w.avif 480w,', ["A"])).toEqual([[320, 480]]);
    expect(widths("a@480w.avif 480w, a@800w.avif 800w", ["A"])).toEqual([
      [320, 480],
      [481, 599],
    ]);
  });

  it("are none where another format is taken, or at another density", () => {
    expect(widths('url("images/a@480w.webp") type("image/webp") 1x', ["A"])).toEqual([]);
    expect(widths("images/a@480w.avif", ["A"], 2)).toEqual([]);
  });

  it("are those of its spans where it names none, and all where it has no letter", () => {
    expect(widths("aspect-ratio: 2 / 1;", ["B"])).toEqual([[600, 2560]]);
    expect(widths("display: block;")).toEqual([
      [320, 599],
      [600, 2560],
    ]);
  });

  it("hold their ends", () => {
    const runs = winner(reading, 1)({ text: "a@480w.avif", spans: [] });
    expect([319, 320, 480, 481].map((w) => isAmong(w, runs))).toEqual([false, true, true, false]);
  });
});
