/**
 * How values of the kind are set in a span: while the page is seen under conditions those that can
 * be others then are set for them, all else for always.
 */
import { useCallback } from "react";
import { featuresOf } from "../conditions";
import { useWork } from "../context";
import { type Draft, withLayout, withLayoutUnder } from "../draft";

export function useLaying() {
  const { conditions, reading } = useWork();
  const facts = reading.values;
  const features = featuresOf(conditions).join();
  return useCallback(
    (draft: Draft, letter: string, values: Record<string, unknown>): Draft => {
      const when = features ? (features.split(",") as ReturnType<typeof featuresOf>) : [];
      const isUnder = (field: string) => when.length > 0 && !!facts[field]?.under;
      const parted = (under: boolean) =>
        Object.fromEntries(Object.entries(values).filter(([f]) => isUnder(f) === under));
      const [usual, under] = [parted(false), parted(true)];
      const laid = Object.keys(usual).length ? withLayout(draft, letter, usual) : draft;
      return Object.keys(under).length ? withLayoutUnder(laid, when, letter, under) : laid;
    },
    [features, facts],
  );
}
