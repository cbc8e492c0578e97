import { describe, expect, it } from "vitest";
import { showing, spoken } from "./useDropped";

describe("pictures that become placements", () => {
  it("are called as people would say their file's name", () => {
    expect(
      ["harbour_steps-final.JPG", "IMG_2041.heic", "船.png", ".jpg", "a.b.c.webp"].map(spoken),
    ).toEqual(["Harbour steps final", "IMG 2041", "船", "Picture", "A.b.c"]);
  });
  it("show at every width, since the widest span hands down", () => {
    expect(showing("Quay", "D", 7).parts).toEqual([
      { alt: null, treatments: { D: { original: 7 } }, ladders: {} },
    ]);
  });
});
