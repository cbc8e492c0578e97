/** A remedy taken: what it sets in a span, and what keeps the next narrower one as it is. */
import type { Original, Remedy, Treatment } from "../api/queries";
import { type Draft, withLayout, withTreatments } from "./draft";

/** Only what a step sets. */
const given = (t: Treatment | null) =>
  Object.fromEntries(Object.entries(t ?? {}).filter(([, v]) => v !== null)) as Treatment;

export function withRemedy(draft: Draft, part: number, letter: string, step: Remedy, originals: Original[]): Draft {
  const set = given(step.treatment);
  const also = Object.fromEntries(Object.entries(step.narrower).map(([l, t]) => [l, given(t)]));
  const other = originals.find((o) => o.id === set.original);
  const looks = other
    ? { ...draft.looks, [other.id]: draft.looks[other.id] ?? { focal: other.focal, areas: other.areas } }
    : draft.looks;
  const treated = withTreatments({ ...draft, looks }, part, { [letter]: set, ...also });
  return Object.entries({ [letter]: step.layout, ...step.narrower_layout }).reduce(
    (d, [l, values]) => (Object.keys(values).length ? withLayout(d, l, values) : d),
    treated,
  );
}
