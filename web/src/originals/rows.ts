/** Pictures laid in rows of one height that fill the width, as a wall hangs them. Drawing only. */

export interface Placed<T> {
  item: T;
  width: number;
}
export interface WallRow<T> {
  height: number;
  cells: Placed<T>[];
}

/**
 * Rows of at least `least` px height; the last row is not stretched. `ratio` is width over height.
 */
export function rowsOf<T>(
  items: readonly T[],
  ratio: (item: T) => number,
  width: number,
  least: number,
  gap: number,
  narrowest = 112,
): WallRow<T>[] {
  const rows: WallRow<T>[] = [];
  let cells: T[] = [];
  const natural = (item: T) => Math.min(width, Math.max(narrowest, least * ratio(item)));
  const close = (stretch: boolean) => {
    if (!cells.length) return;
    const sum = cells.reduce((a, c) => a + natural(c), 0);
    const room = width - gap * (cells.length - 1);
    const by = stretch ? Math.min(1.6, room / sum) : Math.min(1, room / sum);
    rows.push({
      height: least * by,
      cells: cells.map((item) => ({ item, width: natural(item) * by })),
    });
    cells = [];
  };
  let used = 0;
  for (const item of items) {
    const w = natural(item);
    if (cells.length && used + gap + w > width) {
      close(true);
      used = 0;
    }
    used += w + (cells.length ? gap : 0);
    cells.push(item);
  }
  close(false);
  return rows;
}
