/** How the design lies on the stage: for this visit, on every stage alike. */
import { useSessionStorage } from "@mantine/hooks";
import type { Seen } from "./designs";

export type Lies = "off" | "under" | "over" | "wipe" | "difference";

export function useOverlay() {
  const [lies, setLies] = useSessionStorage<Lies>({
    key: "design-lies",
    defaultValue: "over",
    getInitialValueInEffect: false,
  });
  /** How much of it is seen, or how far it is wiped away, in per cent. */
  const [share, setShare] = useSessionStorage<number>({
    key: "design-share",
    defaultValue: 50,
    getInitialValueInEffect: false,
  });
  return { lies, setLies, share, setShare };
}

/** A rectangle that was drawn for a placement on a design; `taken` once a rule has been chosen. */
export interface DrawnSpot {
  placement: number;
  design: number;
  seen: Seen;
  taken: boolean;
}

/** What was drawn on the designs of a page, for this visit. */
export function useDrawn(page: number | undefined, placement: number) {
  const [all, setAll] = useSessionStorage<DrawnSpot[]>({
    key: `spots-of-page-${page ?? 0}`,
    defaultValue: [],
    getInitialValueInEffect: false,
  });
  const isMine = (s: DrawnSpot) => s.placement === placement;
  return {
    all,
    /** Those of this placement, of which no rule has been chosen yet. */
    open: all.filter((s) => isMine(s) && !s.taken),
    /** Where the placement is on a design. */
    on: (design: number | undefined) => all.find((s) => isMine(s) && s.design === design)?.seen,
    draw: (design: number, seen: Seen) =>
      setAll([
        ...all.filter((s) => !isMine(s) || s.design !== design),
        { placement, design, seen, taken: false },
      ]),
    take: () => setAll(all.map((s) => (isMine(s) ? { ...s, taken: true } : s))),
    forget: () => setAll(all.filter((s) => !isMine(s))),
  };
}
