import type { Rect } from "./areas";

/** Where a rectangle of fractions lies in the picture, as style. */
export const box = (r: Rect) => ({
  left: `${r.x * 100}%`,
  top: `${r.y * 100}%`,
  width: `${r.w * 100}%`,
  height: `${r.h * 100}%`,
});
