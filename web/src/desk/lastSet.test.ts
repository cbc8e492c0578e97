import { describe, expect, it } from "vitest";
import type { PlacementBody, SpanReading, Treatment } from "../api/queries";
import type { Draft } from "./draft";
import { canAllHave, lastSet } from "./lastSet";

const draft = (
  treatments: Record<string, Treatment>,
  layout: PlacementBody["layout"] = {},
): Draft => ({
  placement: { parts: [{ treatments }], common: {}, layout } as unknown as PlacementBody,
  looks: {},
});

describe("what the last step set", () => {
  it("is of one span, of the treatment and of the kind", () => {
    const set = lastSet(
      draft({ D: { fit: "cover" } }),
      draft({ D: { fit: "cover" }, C: { fit: "contain" } }),
      0,
    );
    expect(set).toEqual({ letter: "C", treatment: { fit: "contain" }, common: {}, layout: {} });
    expect(lastSet(draft({}), draft({}, { B: { rows: 2 } }), 0)).toMatchObject({
      letter: "B",
      layout: { rows: 2 },
    });
  });
  it("is not told of two spans at once, nor of what was taken away", () => {
    expect(
      lastSet(draft({}), draft({ A: { fit: "cover" }, B: { fit: "cover" } }), 0),
    ).toBeUndefined();
    expect(lastSet(draft({ A: { fit: "cover" } }), draft({}), 0)).toBeUndefined();
    expect(lastSet(draft({}), draft({}), 0)).toBeUndefined();
  });
  it("cannot be had by all where it is a crop and they show different originals", () => {
    const crop = {
      letter: "C",
      treatment: { crop: { x: 0, y: 0, w: 0.5, h: 1 } },
      common: {},
      layout: {},
    };
    const colour = { ...crop, treatment: { background: "#112233" } };
    const spans = [{ effective: { original: 8 } }, { effective: { original: 7 } }] as SpanReading[];
    expect(canAllHave(crop, spans)).toBe(false);
    expect(canAllHave(colour, spans)).toBe(true);
    expect(canAllHave(crop, spans.slice(1))).toBe(true);
  });
});
