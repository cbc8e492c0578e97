import { describe, expect, it } from "vitest";
import type { Part } from "../api/queries";
import { AS_USUAL, asText, featuresOf, fromText, settled, under } from "./conditions";
import { isAlike, shownAt } from "./parts";

describe("what the page is seen under", () => {
  it("goes into the address and comes back from it", () => {
    const seen = settled({
      dark: true,
      still: true,
      turn: "upright",
      pictures: "coming",
      knows: "webp",
    });
    expect(asText(seen)).toBe("dark,still,upright,coming,webp");
    expect(fromText(asText(seen))).toEqual(seen);
  });

  it("is the very same where all is as usual, so that nothing is asked anew", () => {
    expect(fromText(null)).toBe(AS_USUAL);
    expect(fromText("moonlight,sideways")).toBe(AS_USUAL);
    expect(settled({ ...AS_USUAL })).toBe(AS_USUAL);
    expect(under([], under(["dark"]))).toBe(AS_USUAL);
  });

  it("has the features that hold on every screen, in one order", () => {
    expect(featuresOf(fromText("still,upright,dark"))).toEqual(["dark", "portrait", "still"]);
    expect(featuresOf(fromText("lying"))).toEqual([]);
  });

  it("keeps whether pictures are there when a part is gone to", () => {
    const gone = under(["dark", "portrait"], fromText("still,failed"));
    expect(asText(gone)).toBe("dark,upright,failed");
  });
});

const part = (more: object) => ({ treatments: {}, ...more }) as unknown as Part;
const PARTS = [
  part({ key: "a" }),
  part({ key: "b" }),
  part({ of: "a", when: ["dark"] }),
  part({ of: "a", when: ["dark", "portrait"] }),
];

describe("the part that shows under conditions", () => {
  it("is the one of most that hold, and the usual one where none does", () => {
    expect(shownAt(PARTS, 0, [])).toBe(0);
    expect(shownAt(PARTS, 0, ["dark"])).toBe(2);
    expect(shownAt(PARTS, 0, ["dark", "portrait", "still"])).toBe(3);
    expect(shownAt(PARTS, 0, ["portrait"])).toBe(0);
    expect(shownAt(PARTS, 1, ["dark"])).toBe(1);
  });

  it("is looked for anew only where parts come, go or stand in for others", () => {
    expect(isAlike(PARTS, [...PARTS])).toBe(true);
    expect(isAlike(PARTS, PARTS.slice(1))).toBe(false);
    const other = [...PARTS.slice(0, 3), part({ of: "a", when: ["dark", "still"] })];
    expect(isAlike(PARTS, other)).toBe(false);
  });
});
