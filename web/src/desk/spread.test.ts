import { describe, expect, it } from "vitest";
import type { PlacementBody, Treatment } from "../api/queries";
import type { Draft } from "./draft";
import { canAllHave, inAllSpans, lastSet, onlyHere, type Shown } from "./spread";

type Own = Record<string, Treatment>;
const draft = (treatments: Own, layout: PlacementBody["layout"] = {}, common: Own = {}): Draft => ({
  placement: { parts: [{ treatments }], common, layout } as unknown as PlacementBody,
  looks: {},
});
const own = (d: Draft) => d.placement.parts[0]?.treatments;
/** Spans from the narrowest, with what shows there and where it comes from. */
const shown = (spans: Record<string, [object, Record<string, string>]>, layout: object[] = []) =>
  ({
    part: 0,
    spans: Object.entries(spans).map(([letter, [effective, origin]]) => ({
      letter,
      effective,
      origin,
      keeps: ["Mast"],
    })),
    layout,
  }) as unknown as Shown;

describe("what the last step set", () => {
  it("is of one span, of the treatment and of the kind", () => {
    const set = lastSet(draft({ D: { fit: "cover" } }), draft({ D: { fit: "cover" }, C: { fit: "contain" } }), 0);
    expect(set).toEqual({ letter: "C", treatment: { fit: "contain" }, common: {}, layout: {} });
    expect(lastSet(draft({}), draft({}, { B: { rows: 2 } }), 0)).toMatchObject({ letter: "B", layout: { rows: 2 } });
  });
  it("is not told of two spans at once, nor of what was taken away", () => {
    expect(lastSet(draft({}), draft({ A: { fit: "cover" }, B: { fit: "cover" } }), 0)).toBeUndefined();
    expect(lastSet(draft({ A: { fit: "cover" } }), draft({}), 0)).toBeUndefined();
    expect(lastSet(draft({}), draft({}), 0)).toBeUndefined();
  });
});

describe("what was set in one span", () => {
  const set = { letter: "C", treatment: { background: "#112233" }, common: {}, layout: {} };
  const from = (letter: string) => ({ background: letter, original: "D", crop: "" });
  it("is given to all by the widest, and none says otherwise", () => {
    const spans = shown({ A: [{}, from("A")], B: [{}, from("C")], C: [{}, from("C")], D: [{}, from("")] }).spans;
    const before = draft({ A: { background: "#000000", fit: "cover" }, C: { background: "#112233" } });
    expect(own(inAllSpans(before, 0, set, spans))).toEqual({
      A: { fit: "cover" },
      B: {},
      C: {},
      D: { background: "#112233" },
    });
  });
  it("lies over what is said for all parts in a span, or by its named frame", () => {
    const spans = shown({ A: [{}, from("all A")], B: [{}, from("frame B")], C: [{}, from("C")] }).spans;
    expect(own(inAllSpans(draft({ C: { background: "#112233" } }), 0, set, spans))).toEqual({
      A: { background: "#112233" },
      B: { background: "#112233" },
      C: { background: "#112233" },
    });
  });
  it("takes a crop of another original away where the original is the same for all", () => {
    const spans = shown({ A: [{}, { original: "A" }], C: [{}, { original: "C" }] }).spans;
    const before = draft({ A: { original: 8, crop: { x: 0, y: 0, w: 0.5, h: 1 } }, C: { original: 7 } });
    const swap = { letter: "C", treatment: { original: 7 }, common: {}, layout: {} };
    expect(own(inAllSpans(before, 0, swap, spans))).toEqual({ A: {}, C: { original: 7 } });
  });
  it("cannot be had by all where it is a crop and they show different originals", () => {
    const crop = { letter: "C", treatment: { crop: { x: 0, y: 0, w: 0.5, h: 1 } }, common: {}, layout: {} };
    const { spans } = shown({ A: [{ original: 8 }, {}], C: [{ original: 7 }, {}] });
    expect(canAllHave(crop, spans)).toBe(false);
    expect(canAllHave(set, spans)).toBe(true);
  });
  it("is kept from the next narrower span, which says what it showed, unless that has its own", () => {
    const before = shown({ A: [{}, {}], B: [{ background: "#aaaaaa" }, {}], C: [{}, {}] });
    const now = (origin: string) => shown({ A: [{}, {}], B: [{}, from(origin)], C: [{}, {}] });
    expect(own(onlyHere(draft({}), 0, set, now("C"), before))).toEqual({ B: { background: "#aaaaaa" } });
    expect(own(onlyHere(draft({}), 0, set, now("B"), before))).toEqual({ B: {} });
  });
  it("leaves the whole picture where a crop was handed down, and the areas that mattered", () => {
    const cropped = {
      letter: "C",
      treatment: { crop: { x: 0, y: 0, w: 0.5, h: 1 }, keeps: [] },
      common: {},
      layout: {},
    };
    const before = shown({ B: [{ crop: null, keeps: null }, {}], C: [{}, {}] });
    const now = shown({ B: [{}, { crop: "C", keeps: "C" }], C: [{}, {}] });
    expect(own(onlyHere(draft({}), 0, cropped, now, before))).toEqual({
      B: { crop: { x: 0, y: 0, w: 1, h: 1 }, keeps: ["Mast"] },
    });
  });
  it("is kept from it in values of the kind too", () => {
    const rows = { letter: "C", treatment: {}, common: {}, layout: { rows: 3 } };
    const spans = { B: [{}, {}], C: [{}, {}] } as Record<string, [object, Record<string, string>]>;
    const before = shown(spans, [{ letter: "B", values: { rows: 2 }, origin: { rows: "C" } }]);
    expect(onlyHere(draft({}), 0, rows, before, before).placement.layout).toEqual({ B: { rows: 2 } });
  });
});
