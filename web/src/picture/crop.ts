import type { Rect } from "./areas";
import { pushedIn } from "./box";

export const UNCROPPED: Rect = { x: 0, y: 0, w: 1, h: 1 };

/** The least side of a crop that can be drawn, as a share of the picture. */
const LEAST_CROP = 0.01;

/** A rectangle pushed inside the picture and rounded to what a file can tell apart. */
export const fitted = (r: Rect): Rect => pushedIn(r, LEAST_CROP, 5);
