/**
 * Changes of the areas on an original, as plain functions. The order of the list is the order of
 * importance.
 */
import type { Schemas, Told } from "../api/client";
import { pushedIn } from "./box";

export type Area = Told<Schemas["Area"]>;
export type Rect = Area["rect"];

/** The least side of an area, as a share of the picture: smaller ones cannot be taken hold of. */
export const LEAST = 0.005;

/** A rectangle pushed back inside the picture. */
export const inside = (r: Rect): Rect => pushedIn(r, LEAST, 4);

export const moved = (r: Rect, dx: number, dy: number): Rect =>
  inside({ ...r, x: r.x + dx, y: r.y + dy });

/** One corner pulled; the opposite one stays. Pulled across it, the rectangle turns over. */
export function pulled(r: Rect, corner: Corner, dx: number, dy: number): Rect {
  const left = corner.includes("w") ? r.x + dx : r.x;
  const right = corner.includes("e") ? r.x + r.w + dx : r.x + r.w;
  const top = corner.includes("n") ? r.y + dy : r.y;
  const bottom = corner.includes("s") ? r.y + r.h + dy : r.y + r.h;
  return between(left, top, right, bottom);
}

/** The rectangle between two points, cut to the picture. */
export function between(xa: number, ya: number, xb: number, yb: number): Rect {
  const cut = (v: number) => Math.min(1, Math.max(0, v));
  const [x0, x1] = [cut(Math.min(xa, xb)), cut(Math.max(xa, xb))];
  const [y0, y1] = [cut(Math.min(ya, yb)), cut(Math.max(ya, yb))];
  return inside({ x: x0, y: y0, w: x1 - x0, h: y1 - y0 });
}

export const CORNERS = ["nw", "ne", "sw", "se"] as const;
export type Corner = (typeof CORNERS)[number];

/** A name that no other area has. */
export function freeName(areas: readonly Area[], wanted: string): string {
  const taken = new Set(areas.map((a) => a.name));
  if (!taken.has(wanted)) return wanted;
  const stem = wanted.replace(/ \d+$/, "");
  let n = 2;
  while (taken.has(`${stem} ${n}`)) n++;
  return `${stem} ${n}`;
}

export function added(areas: readonly Area[], kind: "keep" | "quiet", rect: Rect): Area[] {
  const name = freeName(areas, kind === "keep" ? "Keep area" : "Quiet area");
  return [...areas, { name, kind, rect, least_px: null, lettering: false }];
}

export function duplicated(areas: readonly Area[], index: number): Area[] {
  const of = areas[index];
  if (!of) return [...areas];
  const copy = { ...of, name: freeName(areas, of.name), rect: moved(of.rect, 0.03, 0.03) };
  return [...areas.slice(0, index + 1), copy, ...areas.slice(index + 1)];
}

export const changed = (areas: readonly Area[], index: number, values: Partial<Area>): Area[] =>
  areas.map((a, i) => (i === index ? { ...a, ...values } : a));

export const removed = (areas: readonly Area[], index: number): Area[] =>
  areas.filter((_, i) => i !== index);

/** The one name that differs between two lists of the same areas: what a renaming did. */
export function renaming(
  before: readonly Area[],
  after: readonly Area[],
): [string, string] | undefined {
  if (before.length !== after.length) return undefined;
  const differ = after.flatMap((a, i) =>
    a.name !== before[i]?.name ? [[before[i]?.name ?? "", a.name] as const] : [],
  );
  const [one] = differ;
  return differ.length === 1 && one ? [one[0], one[1]] : undefined;
}
