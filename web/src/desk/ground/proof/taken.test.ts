import { expect, it } from "vitest";
import { short } from "./taken";

it("an address is told by its file, at a service with how what is asked of it begins", () => {
  expect(short("images/quay@2x.avif")).toBe("quay@2x.avif");
  expect(short("/service/1/ab12/quay.jpg?w=800")).toBe("quay.jpg?w=800");
  expect(short(`/service/1/ab12/quay.jpg?w=800&sig=${"0".repeat(40)}`)).toMatch(/^quay.*0…$/);
  expect(short(null)).toBe("nothing");
});
