/** What every deck of the desk shares: the placement that is worked on, and where the cursor is. */

import { createContext, useContext } from "react";
import type { ProblemError } from "../api/client";
import type { Delivery, Finding, Original, Reading, Site, SpanReading } from "../api/queries";
import type { Conditions } from "./conditions";
import type { Widths } from "./ground/code/wins";
import type { Scale } from "./scale";
import type { Bringing } from "./useBringing";
import type { DraftHandle } from "./useDraft";
import type { Changed, Pending } from "./useReading";
import type { Seeking } from "./useSpot";

/** The placement. It changes with the draft and its reading, not with the cursor. */
export interface Work extends Seeking {
  site: Site;
  placementId: number;
  handle: DraftHandle;
  reading: Reading;
  /** Why the draft cannot be read as it stands; `reading` is then the last one that could. */
  error: ProblemError | undefined;
  /** What of `reading` is older than the draft, as long as an answer is under way. */
  pending: Pending;
  originals: Original[];
  /** Whether these are all there are, or more are on their way. */
  originalsAreAll: boolean;
  delivery: Delivery | undefined;
  scale: Scale;
  span: SpanReading;
  choose: (letter: string) => void;
  choosePart: (part: number) => void;
  /**
   * To the place where a finding is mended: its part, its widest span, its step, the value that it
   * speaks of.
   */
  lead: (finding: Finding) => void;
  /** Whether values are set for all parts, where there are many. */
  ofAll: boolean;
  setOfAll: (ofAll: boolean) => void;
  /** What the last step changed; undefined where that is not known. */
  changed: Changed | undefined;
  /** Whether the detail of the chosen span says what each way to aim comes to. */
  askCosts: (asked: boolean) => void;
  /** Add breakpoints, as last widths of new spans. */
  addPosts: (posts: number[]) => void;
  bringing: Bringing;
  /** What the page is seen under, and what can be another then is worked on under. */
  conditions: Conditions;
  setConditions: (conditions: Conditions) => void;
}

/** Where one looks: the viewport width, and the density that bands are seen at. */
export interface Seen {
  cursor: number;
  setCursor: (width: number) => void;
  density: number;
  /** What a classic scrollbar takes of every page, in CSS px. */
  scrollbar: number;
  setScrollbar: (px: number) => void;
  /** The widths that something pointed at is for, lit on the axis. */
  lit: readonly Widths[];
  light: (runs: readonly Widths[]) => void;
}

export const WorkContext = createContext<Work | null>(null);
export const SeenContext = createContext<Seen | null>(null);

/** The placement alone, for what does not follow the cursor. */
export function useWork(): Work {
  const work = useContext(WorkContext);
  if (!work) throw new Error("outside of the desk");
  return work;
}

export function useSeen(): Seen {
  const seen = useContext(SeenContext);
  if (!seen) throw new Error("outside of the desk");
  return seen;
}

/** The placement, and where one looks. */
export const useDesk = (): Work & Seen => ({ ...useWork(), ...useSeen() });
