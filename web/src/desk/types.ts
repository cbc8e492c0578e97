import type { ProblemError } from "../api/client";
import type { Delivery, Original, Reading, Site, SpanReading } from "../api/queries";
import type { Scale } from "./scale";
import type { DraftHandle } from "./useDraft";

/** What every deck of the desk is given. */
export interface DeskState {
  site: Site;
  placementId: number;
  handle: DraftHandle;
  reading: Reading;
  /** Why the draft cannot be read as it stands; `reading` is then the last one that could. */
  error: ProblemError | undefined;
  originals: Original[];
  delivery: Delivery | undefined;
  scale: Scale;
  cursor: number;
  setCursor: (width: number) => void;
  density: number;
  span: SpanReading;
  choose: (letter: string) => void;
  /** The spans that the last step changed; undefined where that is not known. */
  touched: string[] | undefined;
  /** Whether the detail of the chosen span says what each way to aim comes to. */
  askCosts: (asked: boolean) => void;
  /** Add breakpoints, as last widths of new spans. */
  addPosts: (posts: number[]) => void;
}
