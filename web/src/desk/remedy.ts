/** A remedy taken: what it sets in a span, which hands it down. */
import type { Original, Remedy, Treatment } from "../api/queries";
import { enumerated } from "../ui/format";
import { type Draft, withTreatment } from "./draft";

/** Only what a step sets. */
const given = (t: Treatment | null) =>
  Object.fromEntries(Object.entries(t ?? {}).filter(([, v]) => v !== null)) as Treatment;

export function withRemedy(
  draft: Draft,
  part: number,
  letter: string,
  step: Remedy,
  originals: Original[],
  lay: (draft: Draft, letter: string, values: Record<string, unknown>) => Draft,
): Draft {
  const set = given(step.treatment);
  const other = originals.find((o) => o.id === set.original);
  const looks = other
    ? {
        ...draft.looks,
        [other.id]: draft.looks[other.id] ?? { focal: other.focal, areas: other.areas },
      }
    : draft.looks;
  const treated = withTreatment({ ...draft, looks }, part, letter, set);
  return Object.keys(step.layout).length ? lay(treated, letter, step.layout) : treated;
}

/** Which narrower spans change with it, as a sentence; "" where none does. */
export const followers = ({ follow }: Pick<Remedy, "follow">) =>
  follow.length
    ? `${enumerated(follow)} ${follow.length === 1 ? "changes" : "change"} with it.`
    : "";
