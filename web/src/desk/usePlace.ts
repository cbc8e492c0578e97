/**
 * Where on the desk the designer is. The address follows a moment later, so that dragging never
 * waits for it.
 */
import { useDebouncedValue } from "@mantine/hooks";
import { useCallback, useEffect, useState } from "react";
import { useSearchParams } from "react-router";
import { asText, type Conditions, fromText, isUsual } from "./conditions";

export interface Place {
  /** Undefined until one has been chosen: the widest span's. */
  width: number | undefined;
  /** Whether the width has been chosen here, not by the address. */
  moved?: boolean;
  /** Which part of the placement is worked on, from 0. */
  part: number;
  density: number;
  /** What a classic scrollbar takes of the page, in CSS px; 0: it takes no room. */
  scrollbar: number;
  /** What the page is seen under. */
  conditions: Conditions;
}

/**
 * Widths that classic scrollbars have in desktop browsers, in CSS px; most phones have none (common
 * practice).
 */
export const SCROLLBARS = [0, 12, 15, 17];

const asQuery = (place: Place) =>
  new URLSearchParams({
    ...(place.width ? { width: String(place.width) } : {}),
    ...(place.part ? { part: String(place.part + 1) } : {}),
    ...(place.density === 2 ? {} : { density: String(place.density) }),
    ...(place.scrollbar ? { scrollbar: String(place.scrollbar) } : {}),
    ...(isUsual(place.conditions) ? {} : { seen: asText(place.conditions) }),
  }).toString();

export function usePlace() {
  const [search, setSearch] = useSearchParams();
  const [place, setPlace] = useState<Place>(() => ({
    width: Number(search.get("width")) || undefined,
    part: Math.max(0, (Number(search.get("part")) || 1) - 1),
    density: Number(search.get("density")) || 2,
    scrollbar: SCROLLBARS.find((px) => px === Number(search.get("scrollbar"))) ?? 0,
    conditions: fromText(search.get("seen")),
  }));
  const put = useCallback(
    (values: Partial<Place>) => setPlace((before) => ({ ...before, ...values })),
    [],
  );
  const query = asQuery(place);
  const [settled] = useDebouncedValue(query, 150);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new place writes the address
  useEffect(() => {
    // a step that was gone to meanwhile has taken the place with it: written from here, the address
    // would go back
    if (window.location.search.slice(1) !== settled) setSearch(settled, { replace: true });
  }, [settled]);
  /** The span that the address named when it was opened. */
  const [named] = useState(() => search.get("span") ?? undefined);
  return { place, put, query, named };
}
