/** Rules in a few words, for tables. */
import type { HeightRule, WidthRule } from "./FrameStep";

const bounds = (rule: { least_px?: number | null; greatest_px?: number | null }) =>
  `${rule.least_px ? `, at least ${rule.least_px}` : ""}${rule.greatest_px ? `, at most ${rule.greatest_px}` : ""}`;

export function describeWidth(rule: WidthRule): string {
  const core = {
    full: () => "full",
    fixed: () => (rule.kind === "fixed" ? `${rule.width_px} px` : ""),
    share: () => (rule.kind === "share" ? `${rule.percent} % of the ${rule.of ?? "page"}` : ""),
    columns: () => (rule.kind === "columns" ? `${rule.take ?? 1} of ${rule.columns} columns` : ""),
  }[rule.kind]();
  return core + bounds(rule);
}

export function describeHeight(rule: HeightRule): string {
  const core = {
    natural: () => "natural",
    ratio: () => (rule.kind === "ratio" ? `${rule.w}:${rule.h}` : ""),
    fixed: () => (rule.kind === "fixed" ? `${rule.height_px} px` : ""),
    vh: () => (rule.kind === "vh" ? `${rule.percent} vh` : ""),
  }[rule.kind]();
  return core + bounds(rule);
}
