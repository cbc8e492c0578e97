/**
 * How the desk's height is shared out, remembered per step: where one looks the sky is tall, where
 * one reads it sinks, unless there is room for both.
 */
import { useCallback, useState } from "react";
import type { Step } from "./Steps";

export interface Decks {
  /** Whether the sky is a low strip of panes. */
  isLow: boolean;
  /**
   * The ground's height in px where the designer has dragged the horizon; else as the style sheet
   * has it.
   */
  ground: number | undefined;
}

const READS: readonly Step[] = ["files", "code", "proof"];
export const reads = (step: Step) => READS.includes(step);

/**
 * From so high a window on, in px, there is room for panes that can be judged above a ground to
 * read on.
 */
const ROOM_FOR_BOTH = 940;
const keyOf = (step: Step) => `decks.${step}`;

function remembered(step: Step): Decks {
  try {
    const found = JSON.parse(localStorage.getItem(keyOf(step)) ?? "") as Decks;
    if (typeof found.isLow === "boolean") return { isLow: found.isLow, ground: found.ground };
  } catch {
    // nothing remembered, or nothing that can be read
  }
  return { isLow: reads(step) && window.innerHeight < ROOM_FOR_BOTH, ground: undefined };
}

export function useDecks(step: Step) {
  const [all, setAll] = useState<Partial<Record<Step, Decks>>>({});
  const decks = all[step] ?? remembered(step);
  const set = useCallback(
    (values: Decks) => {
      setAll((before) => ({ ...before, [step]: values }));
      try {
        localStorage.setItem(keyOf(step), JSON.stringify(values));
      } catch {
        // a browser that keeps nothing still shows it for this visit
      }
    },
    [step],
  );
  return {
    decks,
    toggle: useCallback(() => set({ isLow: !decks.isLow, ground: undefined }), [set, decks.isLow]),
    /**
     * The horizon's line was dragged: the ground is to be so high, of so much room for sky and
     * ground.
     */
    drag: useCallback(
      (ground: number, room: number) => {
        const high = Math.round(Math.min(Math.max(ground, LEAST_GROUND), room - LEAST_SKY));
        set({ isLow: room - high < TALL_SKY, ground: high });
      },
      [set],
    ),
  };
}

/**
 * In px: the least that ground and sky may have, and from when on the sky shows panes that can be
 * judged.
 */
export const LEAST_GROUND = 220;
export const LEAST_SKY = 104;
export const TALL_SKY = 190;
