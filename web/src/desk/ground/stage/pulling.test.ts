import { expect, test } from "vitest";
import type { Draft } from "../../draft";
import type { HandleReading, Pulled } from "./ask";
import { designAt } from "./designs";
import { apart, nextStop, spoken, withPulled } from "./pulling";

const draft = {
  placement: {
    parts: [{ treatments: { C: { height: { kind: "ratio", w: 2, h: 1 } } }, of: null }],
    common: {},
    layout: { C: { gutter_px: 8 } },
    layout_under: [],
  },
  looks: {},
} as unknown as Draft;

const pulled = (values: Partial<Pulled>): Pulled => ({
  treatment: {},
  layout: {},
  of_all: false,
  part: 0,
  gone: [],
  at: 0,
  words: "",
  stop: null,
  bound: null,
  told: [],
  ...values,
});

const handle = (values: Partial<HandleReading>): HandleReading => ({
  id: "height",
  name: "Lower edge",
  axis: "y",
  x0: 0,
  y0: 640,
  x1: 1280,
  y1: 640,
  value: 2,
  unit: "ratio",
  step: 0,
  said: "2:1",
  at_least: 1,
  at_most: 8640,
  is_own: true,
  stops: [
    { at: 427, words: "3:1" },
    { at: 640, words: "2:1" },
    { at: 720, words: "16:9" },
  ],
  ...values,
});

const lay = (d: Draft, letter: string, values: Record<string, unknown>): Draft => ({
  ...d,
  placement: { ...d.placement, layout: { ...d.placement.layout, [letter]: values } } as never,
});

test("a pull sets a part's treatment in its span, or that of all parts, or values of the kind", () => {
  const height = { kind: "ratio", w: 3, h: 1 };
  const own = withPulled(draft, "C", pulled({ treatment: { height } }), lay);
  expect(own.placement.parts?.[0]?.treatments?.C).toEqual({ height });
  const all = withPulled(draft, "C", pulled({ treatment: { height }, of_all: true }), lay);
  expect(all.placement.common).toEqual({ C: { height } });
  const kind = withPulled(draft, "C", pulled({ layout: { gutter_px: 24 } }), lay);
  expect(kind.placement.layout?.C).toEqual({ gutter_px: 24 });
});

test("what the wider span has is taken back from this one", () => {
  const back = withPulled(draft, "C", pulled({ gone: ["height"] }), lay);
  expect(back.placement.parts?.[0]?.treatments?.C).toEqual({});
  const layout = withPulled(draft, "C", pulled({ gone: ["gutter_px"] }), lay);
  expect(layout.placement.layout?.C).toEqual({ gutter_px: undefined });
});

test("the next stop lies beyond the one that it stands at", () => {
  expect(nextStop(handle({}), 640, 1)).toBe(720);
  expect(nextStop(handle({}), 640, -1)).toBe(427);
  expect(Number.isFinite(nextStop(handle({}), 720, 1))).toBe(false);
});

test("who hears it hears value, bounds and the stop", () => {
  expect(spoken(handle({}), "2:1")).toBe("2:1, from 1 to 8640 px, 2:1");
});

test("handles that lie on one another are put apart", () => {
  const x = { axis: "x" as const, x0: 100 };
  const all = [
    handle({ id: "width.left", ...x }),
    handle({ id: "margin_px", ...x }),
    handle({ id: "gutter_px", ...x, x0: 400 }),
    handle({}),
  ];
  expect([...apart(all, 1).values()]).toEqual([0, 1, 0, 0]);
  // drawn small, what is 300 px away lies on it too
  expect([...apart(all, 0.08).values()]).toEqual([0, 1, 2, 0]);
});

test("of the designs of a span the nearest lies on the stage", () => {
  const design = (id: number, drawn_for: number, letter: string | null) =>
    ({ id, drawn_for, letter }) as never;
  const all = [design(1, 1440, "C"), design(2, 1280, "C"), design(3, 390, "A"), design(4, 9, null)];
  expect(designAt(all, "C", 1300)?.id).toBe(2);
  expect(designAt(all, "A", 599)?.id).toBe(3);
  expect(designAt(all, "B", 700)).toBeUndefined();
});
