/**
 * What the last step set in one span, so that it can be given to all spans or kept from the
 * narrower ones.
 */
import type { Reading, SpanReading } from "../api/queries";
import { type Draft, treatmentsOf } from "./draft";

type Values = Record<string, unknown>;

/**
 * Values of one span: of a part's treatment, of what holds for all parts, and of the kind itself.
 */
export interface SpanSet {
  letter: string;
  treatment: Values;
  common: Values;
  layout: Values;
}

/** What of a reading tells what each span shows. */
export type Shown = Pick<Reading, "part" | "spans">;

type Letters = Record<string, object | undefined>;
const isSame = (a: unknown, b: unknown) =>
  a === b || JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

/** The fields of one letter that two versions say otherwise, as the later one says them. */
function differing(before: Letters, after: Letters): Record<string, Values> {
  const found: Record<string, Values> = {};
  for (const letter of new Set([...Object.keys(before), ...Object.keys(after)])) {
    const [then, now] = [before[letter] as Values | undefined, after[letter] as Values | undefined];
    const fields = [...new Set([...Object.keys(then ?? {}), ...Object.keys(now ?? {})])];
    const other = fields.filter((f) => !isSame(then?.[f], now?.[f]));
    if (other.length) found[letter] = Object.fromEntries(other.map((f) => [f, now?.[f]]));
  }
  return found;
}

/**
 * What one step set in one span; undefined where it took something away, or changed more than one
 * span.
 */
export function lastSet(before: Draft, after: Draft, part: number): SpanSet | undefined {
  const treatment = differing(
    treatmentsOf(before, part) as Letters,
    treatmentsOf(after, part) as Letters,
  );
  const common = differing(before.placement.common as Letters, after.placement.common as Letters);
  const layout = differing(before.placement.layout as Letters, after.placement.layout as Letters);
  const letters = new Set([treatment, common, layout].flatMap((found) => Object.keys(found)));
  const [letter] = letters;
  if (!letter || letters.size > 1) return undefined;
  const set = {
    letter,
    treatment: treatment[letter] ?? {},
    common: common[letter] ?? {},
    layout: layout[letter] ?? {},
  };
  const values = [set.treatment, set.common, set.layout].flatMap((v) => Object.values(v));
  return values.some((v) => v == null) ? undefined : set;
}

/**
 * Whether all spans can have it: a crop or a choice of areas only where all show the same original.
 */
export const canAllHave = (set: SpanSet, spans: readonly SpanReading[]) =>
  !("crop" in set.treatment || "keeps" in set.treatment) ||
  new Set(spans.map((s) => s.effective.original)).size === 1;
