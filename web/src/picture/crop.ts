import type { Rect } from "./areas";

export const UNCROPPED: Rect = { x: 0, y: 0, w: 1, h: 1 };

/** A rectangle pushed inside the picture and rounded to what a file can tell apart. */
export function fitted(r: Rect): Rect {
  const w = Math.min(1, Math.max(0.01, r.w));
  const h = Math.min(1, Math.max(0.01, r.h));
  const x = Math.min(1 - w, Math.max(0, r.x));
  const y = Math.min(1 - h, Math.max(0, r.y));
  const fix = (v: number) => Math.round(v * 1e5) / 1e5;
  return { x: fix(x), y: fix(y), w: fix(w), h: fix(h) };
}
