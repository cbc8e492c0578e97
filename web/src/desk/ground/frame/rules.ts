import type { SpanReading } from "../../../api/queries";

export type WidthRule = SpanReading["effective"]["width"];
export type HeightRule = SpanReading["effective"]["height"];

/** A width rule of another kind, its bounds kept. */
export function switchWidth(kind: WidthRule["kind"], before: WidthRule): WidthRule {
  const bounds = { least_px: before.least_px, greatest_px: before.greatest_px };
  const of = "of" in before ? before.of : "page";
  switch (kind) {
    case "fixed":
      return { kind, width_px: 600, ...bounds };
    case "share":
      return { kind, percent: 50, of, ...bounds };
    case "columns":
      return { kind, columns: 3, take: 1, gutter_px: 20, of: "container", ...bounds };
    case "percent-columns":
      return {
        kind,
        columns: 3,
        percent: null,
        padding_percent: 1,
        box: "content-box",
        of: "container",
        ...bounds,
      };
    default:
      return { kind: "full", ...bounds };
  }
}

/** A height rule of another kind, its bounds kept; `now` is the height in px that it has now. */
export function switchHeight(kind: HeightRule["kind"], before: HeightRule, now: number): HeightRule {
  const bounds = { least_px: before.least_px, greatest_px: before.greatest_px };
  switch (kind) {
    case "ratio":
      return { kind, w: 16, h: 9, least_vh: null, greatest_vh: null, ...bounds };
    case "fixed":
      return { kind, height_px: Math.round(now), ...bounds };
    case "vh":
      return { kind, percent: 60, ...bounds };
    default:
      return { kind: "natural", ...bounds };
  }
}
