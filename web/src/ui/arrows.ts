/** Arrow keys as steps, with Shift ten times as far; undefined for other keys. */

interface Key {
  key: string;
  shiftKey: boolean;
}

const WAYS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

/** Across and down on a picture, in fractions of it. */
export function stepOn(e: Key): [number, number] | undefined {
  const [x, y] = WAYS[e.key] ?? [];
  const by = e.shiftKey ? 0.05 : 0.005;
  return x === undefined || y === undefined ? undefined : [x * by, y * by];
}

/** Along the axis of widths, in px. */
export function stepAlong(e: Key): number | undefined {
  const [x] = WAYS[e.key] ?? [];
  return x ? x * (e.shiftKey ? 10 : 1) : undefined;
}
