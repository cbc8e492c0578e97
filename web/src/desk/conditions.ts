/**
 * What the page is seen under: a dark colour scheme, less motion, how screens stand, pictures, and
 * the formats that a browser knows.
 */
import type { components } from "../api/schema";
import type { When } from "./parts";

export type Conditions = Required<components["schemas"]["Conditions"]>;

export const AS_USUAL: Conditions = {
  dark: false,
  still: false,
  turn: "typical",
  pictures: "here",
  knows: "avif",
};

export const TURNS: Conditions["turn"][] = ["typical", "upright", "lying"];
export const KNOWS: Conditions["knows"][] = ["avif", "webp", "jpeg"];
export const PICTURES: Conditions["pictures"][] = ["here", "coming", "failed"];

/** Where all stands as usual it is the very same, so that nothing is asked anew. */
export const settled = (c: Conditions): Conditions => (isUsual(c) ? AS_USUAL : c);

export const isUsual = (c: Conditions) =>
  !c.dark && !c.still && c.turn === "typical" && c.pictures === "here" && c.knows === "avif";

/** The media features that hold everywhere then. */
export function featuresOf(c: Conditions): When {
  const holds = { dark: c.dark, portrait: c.turn === "upright", still: c.still };
  return (["dark", "portrait", "still"] as const).filter((f) => holds[f]);
}

/** The conditions with just these features; whether pictures are there stays. */
export const under = (when: When, before: Conditions = AS_USUAL): Conditions =>
  settled({
    ...before,
    dark: when.includes("dark"),
    still: when.includes("still"),
    turn: when.includes("portrait") ? "upright" : "typical",
  });

/** As an address has them: `dark,upright`; "" as usual. */
export const asText = (c: Conditions) =>
  [
    c.dark && "dark",
    c.still && "still",
    c.turn !== "typical" && c.turn,
    c.pictures !== "here" && c.pictures,
    c.knows !== "avif" && c.knows,
  ]
    .filter(Boolean)
    .join();

export function fromText(text: string | null): Conditions {
  const said = new Set((text ?? "").split(","));
  return settled({
    dark: said.has("dark"),
    still: said.has("still"),
    turn: TURNS.find((t) => said.has(t)) ?? "typical",
    pictures: PICTURES.find((p) => said.has(p)) ?? "here",
    knows: KNOWS.find((k) => said.has(k)) ?? "avif",
  });
}

/** Whether what is so under some features is so under those that are seen. */
export const isSeen = (when: When | undefined, c: Conditions) =>
  (when ?? []).every((f) => featuresOf(c).includes(f));

const IN_WORDS = { dark: "in the dark", portrait: "in portrait", still: "at rest" } as const;

/** When some features hold all at once: in the dark and in portrait. */
export const whenWords = (when: When) => when.map((f) => IN_WORDS[f]).join(" and ");
