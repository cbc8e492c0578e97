/**
 * The parts of a placement: those that stand in for others under conditions come after all others,
 * and go with those.
 */
import type { Part } from "../api/queries";

export type When = NonNullable<Part["when"]>;

/** All that can be asked for: one feature, or a pair of them. */
export const SETS: When[] = [
  ["dark"],
  ["portrait"],
  ["still"],
  ["dark", "portrait"],
  ["dark", "still"],
  ["portrait", "still"],
];

/** Whether these are as many parts, and stand in for the same ones. */
export const isAlike = (a: readonly Part[], b: readonly Part[]) =>
  a.length === b.length &&
  a.every((p, i) => p.of === b[i]?.of && p.key === b[i]?.key && `${p.when}` === `${b[i]?.when}`);

/** The parts that stand in for no other one, in their order. */
export const usualOf = (parts: readonly Part[]) => parts.filter((p) => p.of == null);

/** Parts in an order that can be had: variants last, none of a part that is gone. */
export function inOrder(parts: readonly Part[]): Part[] {
  const usual = usualOf(parts);
  const keys = new Set(usual.map((p) => p.key));
  return [...usual, ...parts.filter((p) => p.of != null && keys.has(p.of))];
}

/** The place of the part that one stands in for; of any other one its own. */
export function usualAt(parts: readonly Part[], at: number): number {
  const of = parts[at]?.of;
  return of == null ? at : parts.findIndex((p) => p.key === of);
}

/** The places of those that stand in for a part. */
export const variantsOf = (parts: readonly Part[], at: number): number[] => {
  const key = parts[at]?.key;
  return key == null ? [] : parts.flatMap((p, i) => (p.of === key ? [i] : []));
};

/** The place of what shows for a part while some features hold; its own where nothing else does. */
export function shownAt(parts: readonly Part[], at: number, holds: When): number {
  const fits = variantsOf(parts, at).filter((i) =>
    (parts[i]?.when ?? []).every((f) => holds.includes(f)),
  );
  const n = (i: number) => parts[i]?.when?.length ?? 0;
  return fits.sort((a, b) => n(b) - n(a))[0] ?? at;
}

/** The place of what stands in for a part under just these conditions; -1 where nothing does. */
export const variantAt = (parts: readonly Part[], at: number, when: When): number =>
  variantsOf(parts, at).find((i) => parts[i]?.when?.join() === when.join()) ?? -1;
