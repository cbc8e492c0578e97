/**
 * What the page is seen under, and the part that is worked on: what shows then is what is worked on.
 */
import { useCallback } from "react";
import { type Conditions, featuresOf, under } from "./conditions";
import { shownAt, usualAt } from "./parts";
import type { DraftHandle } from "./useDraft";
import type { Place } from "./usePlace";

export function useConditions(
  handle: DraftHandle,
  place: Place,
  put: (values: Partial<Place>) => void,
) {
  const { parts } = handle.draft.placement;
  const { part, conditions } = place;
  const choosePart = useCallback(
    (chosen: number) => {
      const when = parts[chosen]?.when ?? [];
      const holds = featuresOf(conditions);
      // one that shows in them already changes nothing of them
      const shows = when.length ? when.every((f) => holds.includes(f)) : !holds.length;
      put({ part: chosen, conditions: shows ? conditions : under(when, conditions) });
    },
    [put, parts, conditions],
  );
  /** `of`: the part of which what then shows is worked on. */
  const setConditions = useCallback(
    (next: Conditions, of = part) =>
      put({ conditions: next, part: shownAt(parts, usualAt(parts, of), featuresOf(next)) }),
    [put, parts, part],
  );
  return { choosePart, setConditions };
}
