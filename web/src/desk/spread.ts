/** What the last step set in one span, and the same laid on all spans or kept from the narrower ones. */
import type { Reading, SpanReading, Treatment } from "../api/queries";
import { type Draft, treatmentsOf, withCommon, withLayout, withTreatment } from "./draft";

type Values = Record<string, unknown>;

/** Values of one span: of a part's treatment, of what holds for all parts, and of the kind itself. */
export interface SpanSet {
  letter: string;
  treatment: Values;
  common: Values;
  layout: Values;
}

/** What of a reading tells what each span shows. */
export type Shown = Pick<Reading, "part" | "spans" | "layout">;

const WHOLE = { x: 0, y: 0, w: 1, h: 1 };
/** They speak of one original. */
const OF_ORIGINAL = ["crop", "keeps"];

type Letters = Record<string, object | undefined>;
const isSame = (a: unknown, b: unknown) => a === b || JSON.stringify(a ?? null) === JSON.stringify(b ?? null);

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

/** What one step set in one span; undefined where it took something away, or changed more than one span. */
export function lastSet(before: Draft, after: Draft, part: number): SpanSet | undefined {
  const treatment = differing(treatmentsOf(before, part) as Letters, treatmentsOf(after, part) as Letters);
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

const isOwn = (origin: string | undefined, letter: string) =>
  origin === letter || origin === `all ${letter}` || origin === `frame ${letter}`;

const unset = (fields: readonly string[]) => Object.fromEntries(fields.map((f) => [f, undefined]));

/** `spans` from the narrowest. The widest says it, and no other span says otherwise. */
export function inAllSpans(draft: Draft, part: number, set: SpanSet, spans: readonly SpanReading[]): Draft {
  const widest = spans.at(-1)?.letter ?? set.letter;
  const fields = Object.keys(set.treatment);
  const gone = fields.includes("original") ? [...fields, ...OF_ORIGINAL] : fields;
  return spans.reduce((d, { letter, origin }) => {
    const at = letter === widest;
    // what is said for all parts or by the named frame there would lie over what is handed down
    const over = fields.filter((f) => at || (isOwn(origin[f], letter) && origin[f] !== letter));
    const treated = withTreatment(d, part, letter, {
      ...unset(gone),
      ...Object.fromEntries(over.map((f) => [f, set.treatment[f]])),
    } as Treatment);
    const common = Object.keys(set.common);
    const shared = common.length
      ? withCommon(treated, letter, (at ? set.common : unset(common)) as Treatment)
      : treated;
    const kinds = Object.keys(set.layout);
    return kinds.length ? withLayout(shared, letter, at ? set.layout : unset(kinds)) : shared;
  }, draft);
}

/** Whether all spans can have it: a crop or a choice of areas only where all show the same original. */
export const canAllHave = (set: SpanSet, spans: readonly SpanReading[]) =>
  !OF_ORIGINAL.some((f) => f in set.treatment) || new Set(spans.map((s) => s.effective.original)).size === 1;

/** The next narrower span says what it showed before the step, where it would be handed down what was set. */
export function onlyHere(draft: Draft, part: number, set: SpanSet, now: Shown, before: Shown): Draft {
  const next = now.spans[now.spans.findIndex((s) => s.letter === set.letter) - 1];
  const then = before.spans.find((s) => s.letter === next?.letter);
  if (!next || !then) return draft;
  const { letter } = next;
  const had = (f: string) => {
    const value = then.effective[f as keyof typeof then.effective];
    if (f === "crop") return value ?? WHOLE;
    return f === "keeps" ? (value ?? then.keeps) : value;
  };
  const handed = (values: Values) => {
    const fields = Object.keys(values).filter((f) => !isOwn(next.origin[f], letter));
    const all = fields.includes("original") ? [...new Set([...fields, ...OF_ORIGINAL])] : fields;
    return Object.fromEntries(all.map((f) => [f, had(f)])) as Treatment;
  };
  const treated = withTreatment(draft, part, letter, handed(set.treatment));
  const shared = handed(set.common);
  const common = Object.keys(shared).length ? withCommon(treated, letter, shared) : treated;
  const origins = now.layout.find((l) => l.letter === letter)?.origin;
  const values = before.layout.find((l) => l.letter === letter)?.values as Values | undefined;
  const kinds = Object.keys(set.layout).filter((f) => origins?.[f] !== letter);
  return kinds.length ? withLayout(common, letter, Object.fromEntries(kinds.map((f) => [f, values?.[f]]))) : common;
}
