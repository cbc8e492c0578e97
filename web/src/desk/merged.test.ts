import { expect, test } from "vitest";
import { merged } from "./merged";

test("what is not read while something is dragged stays as it was", () => {
  const items = {
    items: [],
    ratio: null,
    sharpest: null,
    largest: "A",
    weight: { kind: "weight" },
    crop_ratios: { "1:1": 1 },
  };
  const whole = { parts: {}, items } as unknown as Parameters<typeof merged>[0];
  const moving = { parts: {}, items: { together: 1, largest: "", weight: null, crop_ratios: {} } };
  const now = merged(whole, moving as unknown as NonNullable<Parameters<typeof merged>[1]>);
  expect(now.items).toMatchObject({
    weight: { kind: "weight" },
    crop_ratios: { "1:1": 1 },
    largest: "A",
  });
});
