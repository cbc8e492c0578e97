/** Changes of what shows in the place of a part under conditions. */
import type { Part, Treatment } from "../api/queries";
import { type Draft, NEW_PART, withPart, withPlacement, withTreatment } from "./draft";
import { variantAt, type When } from "./parts";

/** A key that no part has. */
function freeKey(parts: readonly Part[]): string {
  const taken = new Set(parts.map((p) => p.key));
  let n = 1;
  while (taken.has(String(n))) n++;
  return String(n);
}

/** What shows in the place of a part under conditions, in one span; there is one from then on. */
export function withVariant(
  draft: Draft,
  at: number,
  when: When,
  letter: string,
  values: Treatment,
): Draft {
  const { parts } = draft.placement;
  const there = variantAt(parts, at, when);
  if (there >= 0) return withTreatment(draft, there, letter, values);
  const key = parts[at]?.key ?? freeKey(parts);
  const keyed = withPart(draft, at, { key });
  const more = { ...NEW_PART, of: key, when, treatments: { [letter]: values } };
  return withPlacement(keyed, { parts: [...keyed.placement.parts, more] });
}

/** Without a variant that lets the usual one show in every span. */
export function withoutIdle(draft: Draft, at: number): Draft {
  const part = draft.placement.parts[at];
  const says = Object.values(part?.treatments ?? {}).some((t) =>
    Object.keys(t).some((k) => k !== "show" || t.show !== "usual"),
  );
  return says
    ? draft
    : withPlacement(draft, { parts: draft.placement.parts.filter((_, i) => i !== at) });
}
