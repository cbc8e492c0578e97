/** Where names of areas stand on the map, so that none covers another. */
import type { Area, Rect } from "./areas";

export interface Label {
  left: number;
  top: number;
  width: number;
}

export const LABEL_HEIGHT = 17;
const LETTER_PX = 6.3;
const AROUND_PX = 11;
const MOST_PX = 170;

/** How wide a name is drawn, in CSS px; longer ones are cut off. */
export const labelWidth = (name: string) =>
  Math.min(MOST_PX, Math.ceil(name.length * LETTER_PX) + AROUND_PX);

const meets = (a: Label, b: Label) =>
  a.left < b.left + b.width &&
  b.left < a.left + a.width &&
  a.top < b.top + LABEL_HEIGHT &&
  b.top < a.top + LABEL_HEIGHT;

/**
 * A place for each area's name, in CSS px of a map of this size; undefined where there is no room
 * left for one. Each stands at an edge of its area or in a corner of it where that is free, else in
 * the nearest free row.
 */
export function labelsOf(
  areas: readonly Area[],
  width: number,
  height: number,
): (Label | undefined)[] {
  const taken: Label[] = [];
  return areas.map((area) => {
    const w = Math.min(labelWidth(area.name), width);
    const x0 = area.rect.x * width;
    const x1 = (area.rect.x + area.rect.w) * width;
    const y0 = area.rect.y * height;
    const y1 = (area.rect.y + area.rect.h) * height;
    const inside = (left: number, top: number): Label => ({
      left: Math.min(Math.max(left, 0), width - w),
      top: Math.min(Math.max(top, 0), height - LABEL_HEIGHT),
      width: w,
    });
    const beside: [number, number][] = [
      [x0, y1],
      [x0, y0 - LABEL_HEIGHT],
      [x1 - w, y1],
      [x1 - w, y0 - LABEL_HEIGHT],
      [x0, y1 - LABEL_HEIGHT],
      [x0, y0],
      [x1, y1 - LABEL_HEIGHT],
      [x0 - w, y1 - LABEL_HEIGHT],
    ];
    const rows: [number, number][] = [];
    for (let by = LABEL_HEIGHT; by < height; by += LABEL_HEIGHT)
      rows.push([x0, y1 + by], [x0, y0 - by]);
    const found = [...beside, ...rows]
      .map(([l, t]) => inside(l, t))
      .find((at) => !taken.some((t) => meets(t, at)));
    if (found) taken.push(found);
    return found;
  });
}

/** The side of a span's letter on the map, with the gap beside it. */
export const TAG_PX = 20;

/**
 * A place for each outline's letter, in CSS px of a map of this size: in the outline's top left
 * corner, or, where another letter is there, the next free place to the right, then below.
 */
export function tagsOf(
  outlines: readonly Rect[],
  width: number,
  height: number,
): { left: number; top: number }[] {
  const taken: { left: number; top: number }[] = [];
  return outlines.map((r) => {
    const x = Math.min(Math.max(r.x, 0) * width, width - TAG_PX);
    const y = Math.min(Math.max(r.y, 0) * height, height - TAG_PX);
    const places = outlines.flatMap((_, row) =>
      outlines.map((_, column) => ({ left: x + column * TAG_PX, top: y + row * TAG_PX })),
    );
    const isFree = (at: { left: number; top: number }) =>
      at.left + TAG_PX <= width &&
      !taken.some((t) => Math.abs(t.left - at.left) < TAG_PX && Math.abs(t.top - at.top) < TAG_PX);
    const found = places.find(isFree) ?? { left: x, top: y };
    taken.push(found);
    return found;
  });
}
