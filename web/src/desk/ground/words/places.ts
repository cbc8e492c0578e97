/** The nine places, row by row, and what they are called where one reads from left to right. */
import type { BannerValues } from "../../../api/queries";

export type Place = BannerValues["place"];

export const PLACES: readonly Place[] = [
  ...(["top-start", "top", "top-end"] as const),
  ...(["start", "middle", "end"] as const),
  ...(["bottom-start", "bottom", "bottom-end"] as const),
];

const WORDS: Record<Place, string> = {
  "top-start": "top left",
  top: "top",
  "top-end": "top right",
  start: "left",
  middle: "middle",
  end: "right",
  "bottom-start": "bottom left",
  bottom: "bottom",
  "bottom-end": "bottom right",
};

export const placeWord = (place: Place) => WORDS[place];

/** The place at a point of a box, given as fractions of it. */
export function placeAt(x: number, y: number): Place {
  const third = (v: number) => Math.min(2, Math.max(0, Math.floor(v * 3)));
  return PLACES[third(y) * 3 + third(x)] as Place;
}

/** Where a place is in a grid of three by three, from 0. */
export const placeIndex = (place: Place) => PLACES.indexOf(place);
