/** Rules in a few words, for tables. */
import type { HeightRule, WidthRule } from "./rules";

interface Bounded {
  least_px?: number | null;
  greatest_px?: number | null;
  least_vh?: number | null;
  greatest_vh?: number | null;
}

const bounds = (rule: Bounded) =>
  [
    rule.least_px && `, at least ${rule.least_px}`,
    rule.least_vh && `, at least ${rule.least_vh} vh`,
    rule.greatest_px && `, at most ${rule.greatest_px}`,
    rule.greatest_vh && `, at most ${rule.greatest_vh} vh`,
  ]
    .filter(Boolean)
    .join("");

export function describeWidth(rule: WidthRule): string {
  const core = {
    full: () =>
      rule.kind === "full" && rule.margin_px ? `full less 2 × ${rule.margin_px}` : "full",
    fixed: () => (rule.kind === "fixed" ? `${rule.width_px} px` : ""),
    share: () => (rule.kind === "share" ? `${rule.percent} % of the ${rule.of}` : ""),
    columns: () => (rule.kind === "columns" ? `${rule.take} of ${rule.columns} columns` : ""),
    "percent-columns": () =>
      rule.kind === "percent-columns"
        ? `${rule.columns} columns of ${rule.percent ?? "what is left"} %, padding ${rule.padding_percent} %`
        : "",
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
