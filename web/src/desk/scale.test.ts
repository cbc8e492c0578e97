import { describe, expect, it } from "vitest";
import { heightAt, runAt, Scale, spanAt, valueAt } from "./scale";

describe("the axis", () => {
  const scale = new Scale(320, 2560);
  it("gives equal ratios equal room", () => {
    expect(scale.at(320)).toBe(0);
    expect(scale.at(2560)).toBe(1);
    expect(scale.at(640)).toBeCloseTo(1 / 3);
    expect(scale.at(1280)).toBeCloseTo(2 / 3);
  });
  it("finds every width again", () => {
    for (let w = 320; w <= 2560; w += 7) expect(scale.width(scale.at(w))).toBe(w);
  });
  it("stays inside the range", () => {
    expect(scale.width(-1)).toBe(320);
    expect(scale.width(2)).toBe(2560);
    expect(scale.clamp(500.6)).toBe(501);
  });
});

describe("what a reading says at a width", () => {
  it("goes straight between the points of a curve and on from its ends", () => {
    const curve = {
      points: [
        [320, 100],
        [420, 200],
        [600, 200],
      ] as [number, number][],
    };
    expect(valueAt(curve, 370)).toBe(150);
    expect(valueAt(curve, 500)).toBe(200);
    expect(valueAt(curve, 300)).toBe(100);
    expect(valueAt(curve, 900)).toBe(200);
    expect(valueAt(undefined, 1)).toBeUndefined();
  });
  it("finds run, span and height by their bounds, both included", () => {
    const run = {
      first: 320,
      last: 599,
      verdict: "whole" as const,
      at_first: 1,
      at_last: 1,
      worst: 1,
      worst_at: 320,
    };
    const band = { kind: "area" as const, name: "x", runs: [run] };
    expect(runAt(band, 599)).toBe(run);
    expect(runAt(band, 600)).toBeUndefined();
    expect(
      spanAt(
        [
          { first: 320, last: 599 },
          { first: 600, last: 900 },
        ],
        600,
      )?.last,
    ).toBe(900);
    const reading = {
      heights: [
        { to_px: 599, typical_px: 640 },
        { to_px: 9999, typical_px: 1080 },
      ],
    };
    expect(heightAt(reading as never, 599)).toBe(640);
    expect(heightAt(reading as never, 600)).toBe(1080);
  });
});
