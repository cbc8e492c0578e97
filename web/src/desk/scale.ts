/**
 * The horizon's axis: viewport widths on a logarithmic scale, equal ratios taking equal room.
 * Drawing only.
 */
import type { Schemas } from "../api/client";

export class Scale {
  constructor(
    readonly narrowest: number,
    readonly widest: number,
  ) {}
  /** Where a width lies on the axis, 0–1. */
  at(width: number): number {
    return Math.log(width / this.narrowest) / (Math.log(this.widest / this.narrowest) || 1);
  }
  /** The width at a place on the axis, in whole px inside the range. */
  width(at: number): number {
    return this.clamp(Math.round(this.narrowest * (this.widest / this.narrowest) ** at));
  }
  clamp(width: number): number {
    return Math.min(this.widest, Math.max(this.narrowest, Math.round(width)));
  }
  percent(width: number): string {
    return `${(this.at(width) * 100).toFixed(3)}%`;
  }
  /** Where a run of whole widths lies on the axis, up to where the next one begins, as style. */
  run({ first, last }: { first: number; last: number }) {
    const share = this.at(Math.min(last + 1, this.widest)) - this.at(first);
    return { left: this.percent(first), width: `${share * 100}%` };
  }
}

/** The letter of the span at a width. */
export const letterAt = (breakpoints: readonly number[], width: number) =>
  String.fromCharCode(65 + breakpoints.filter((b) => b < width).length);

/** Widths of panes that always stand in the sky. */
export const USUAL_WIDTHS = [360, 768, 1280, 1920];

interface Axis {
  narrowest: number;
  widest: number;
  breakpoints: readonly number[];
}

/** A width inside a span: a usual one if there is one, else its middle on the axis. */
export function widthIn({ narrowest, widest, breakpoints }: Axis, letter: string): number {
  const i = Math.max(0, Math.min(letter.charCodeAt(0) - 65, breakpoints.length));
  const first = i === 0 ? narrowest : (breakpoints[i - 1] as number) + 1;
  const last = breakpoints[i] ?? widest;
  return (
    USUAL_WIDTHS.findLast((w) => first <= w && w <= last) ?? Math.round(Math.sqrt(first * last))
  );
}

/** A file is needed with so many px: whole ones, with room for rounding in floating point. */
export const wholePx = (px: number) => Math.ceil(Math.round(px * 1e4) / 1e4);

/** The value of a reading's curve at a width, straight between its points. */
export function valueAt(
  curve: Schemas["Curve"] | null | undefined,
  width: number,
): number | undefined {
  const points = curve?.points;
  if (!points?.length) return undefined;
  for (let i = 1; i < points.length; i++) {
    const [v0, y0] = points[i - 1] as [number, number];
    const [v1, y1] = points[i] as [number, number];
    if (width <= v1) return width <= v0 ? y0 : y0 + ((y1 - y0) * (width - v0)) / (v1 - v0);
  }
  return (points[points.length - 1] as [number, number])[1];
}

export const runAt = <R extends { first: number; last: number }>(
  band: { runs?: readonly R[] },
  width: number,
) => band.runs?.find((r) => r.first <= width && width <= r.last);

export const spanAt = <S extends { first: number; last: number }>(
  spans: readonly S[],
  width: number,
): S | undefined => spans.find((s) => s.first <= width && width <= s.last);

/** The viewport height that goes with a width. */
export function heightAt(reading: Pick<Schemas["Reading"], "heights">, width: number): number {
  const row =
    reading.heights.find((h) => width <= h.to_px) ?? reading.heights[reading.heights.length - 1];
  return row?.typical_px ?? 800;
}
