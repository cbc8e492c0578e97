import type { Rect } from "./areas";

/** Where a rectangle of fractions lies in the picture, as style. */
export const box = (r: Rect) => ({
  left: `${r.x * 100}%`,
  top: `${r.y * 100}%`,
  width: `${r.w * 100}%`,
  height: `${r.h * 100}%`,
});

/**
 * A rectangle pushed inside the picture, its size kept where it can be, no side less than `least`,
 * with so many decimals.
 */
export function pushedIn(r: Rect, least: number, decimals: number): Rect {
  const fix = (v: number) => Number(v.toFixed(decimals));
  const w = Math.min(1, Math.max(least, r.w));
  const h = Math.min(1, Math.max(least, r.h));
  const x = Math.min(1 - w, Math.max(0, r.x));
  const y = Math.min(1 - h, Math.max(0, r.y));
  return { x: fix(x), y: fix(y), w: fix(w), h: fix(h) };
}
