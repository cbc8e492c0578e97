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

/** The rectangles that were drawn for a placement, by the id of the design. */
export type Drawn = Record<string, Seen>;

export function useDrawn(placement: number) {
  const [drawn, setDrawn] = useSessionStorage<Drawn>({
    key: `spots-of-${placement}`,
    defaultValue: {},
    getInitialValueInEffect: false,
  });
  return { drawn, setDrawn };
}
