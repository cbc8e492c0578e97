/** Which panes there are and how they share the sky's room, as plain functions. */
import type { Reading } from "../../api/queries";
import { heightAt, type Scale, USUAL_WIDTHS } from "../scale";

export const GAP = 16;
export const SIDE = 20;
/** Panes lower than this say nothing; on a narrow screen they scroll sideways instead. */
const LEAST_HEIGHT = 140;
const LEAST_HEIGHT_LOW = 40;
/** Beside a low pane stand its width and its verdict. */
export const TEXT_WIDTH = 96;

export interface PaneSpec {
  width: number;
  height: number;
  follows: boolean;
}

/**
 * The fixed panes inside the site's range and the one at the cursor, which takes the place of one
 * of its own width.
 */
export function panesOf(
  reading: Pick<Reading, "heights">,
  scale: Scale,
  cursor: number,
): PaneSpec[] {
  const fixed = USUAL_WIDTHS.filter(
    (w) => w >= scale.narrowest && w <= scale.widest && w !== cursor,
  ).map((width) => ({
    width,
    height: heightAt(reading, width),
    follows: false,
  }));
  const moving = { width: cursor, height: heightAt(reading, cursor), follows: true };
  return [
    ...fixed.filter((p) => p.width < cursor),
    moving,
    ...fixed.filter((p) => p.width > cursor),
  ];
}

/** The moving pane is given room in steps, so that the others keep their size while it moves. */
function ratioOf(p: PaneSpec): number {
  const r = p.width / p.height;
  if (!p.follows) return r;
  return r <= 1 ? 1 : r <= 2 ? 2 : 2.4;
}

/** How tall panes can be in so much width. */
export function tallest(panes: PaneSpec[], width: number): number {
  const room = width - 2 * SIDE - GAP * (panes.length - 1);
  return room / panes.reduce((sum, p) => sum + ratioOf(p), 0);
}

export const paneHeight = (
  panes: PaneSpec[],
  width: number,
  height: number,
  isLow = false,
): number =>
  Math.max(isLow ? LEAST_HEIGHT_LOW : LEAST_HEIGHT, Math.min(height, tallest(panes, width)));

export interface PlacedPane extends PaneSpec {
  x: number;
  w: number;
}

/** The panes side by side over the whole width, or `scrolls` where they do not fit. */
export function placed(panes: PaneSpec[], tall: number, width: number, beside: number) {
  const used = panes.reduce((sum, p) => sum + (tall * p.width) / p.height + beside, 0);
  const gap = Math.max(GAP, (width - 2 * SIDE - used) / Math.max(1, panes.length - 1));
  let x = SIDE;
  const out: PlacedPane[] = panes.map((p) => {
    const w = (tall * p.width) / p.height;
    const at = { ...p, x, w };
    x += w + beside + gap;
    return at;
  });
  return { panes: out, scrolls: used + gap * (panes.length - 1) + 2 * SIDE > width + 1 };
}
