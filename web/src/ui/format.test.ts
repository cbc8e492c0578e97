import { describe, expect, it } from "vitest";
import { parseBreakpoints } from "../sites/BreakpointsInput";
import { bytes, percent, plural, range, timeLeft, typed, typedRatio } from "./format";

describe("what is left", () => {
  it("is rounded, since it is a guess", () => {
    expect([2, 12, 58, 130].map(timeLeft)).toEqual([
      "a few seconds left",
      "about 15 s left",
      "about 1 minute left",
      "about 2 minutes left",
    ]);
  });
});
describe("numbers as people read and write them", () => {
  it("bytes", () => {
    expect([999, 31_400, 1_370_000].map(bytes).map((t) => t.replace("\u202f", " "))).toEqual([
      "999 B",
      "31 kB",
      "1.4 MB",
    ]);
  });
  it("shares, counts and ranges", () => {
    expect(percent(0.4219).replace("\u202f", " ")).toBe("42 %");
    expect([plural(1, "file"), plural(3, "file")]).toEqual(["1 file", "3 files"]);
    expect([range(320, 599), range(1600, 2560, 2560)]).toEqual(["320–599", "from 1600"]);
  });
  it("typed numbers, with a comma too, and nothing else", () => {
    expect([typed(" 2,5 "), typed("40"), typed(""), typed("x"), typed("Infinity")]).toEqual([
      2.5,
      40,
      undefined,
      undefined,
      undefined,
    ]);
  });
  it("typed ratios", () => {
    expect(typedRatio("4:5")).toEqual({ w: 4, h: 5 });
    expect(typedRatio("2.4")).toEqual({ w: 2.4, h: 1 });
    expect(typedRatio("16/9")).toEqual({ w: 16, h: 9 });
    expect([
      typedRatio("0:1"),
      typedRatio("4:"),
      typedRatio("a:b"),
      typedRatio("1:2:3"),
      typedRatio("-4:5"),
    ]).toEqual(Array(5).fill(undefined));
  });
  it("breakpoints with commas, blanks or both", () => {
    expect(parseBreakpoints("599, 1023  1599;")).toEqual([599, 1023, 1599]);
  });
});
