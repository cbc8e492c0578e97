/** What can be pulled of the draft as it stands, at the cursor: the latest answer alone is shown. */
import { useEffect, useRef, useState } from "react";
import { ProblemError } from "../../../api/client";
import { askStage, type Held, type StageReading } from "./ask";

/** While a draft changes quickly, its stage is asked for once it has rested so long. */
const REST_MS = 120;

export interface Staged {
  /** What it was read of. */
  held: Held;
  reading: StageReading;
}

const SAME: (keyof Held)[] = [
  "draft",
  "plan",
  "part",
  "letter",
  "width",
  "height",
  "scrollbar",
  "fold",
  "marks",
];
const isSame = (a: Held, b: Held | undefined) =>
  b !== undefined && SAME.every((f) => a[f] === b[f]);

/** `waits`: nothing is asked, as while a handle is in hand. */
export function useStage(held: Held, waits: boolean) {
  const [staged, setStaged] = useState<Staged>();
  const [refused, setRefused] = useState<string>();
  const latest = useRef(held);
  latest.current = held;
  const { draft, plan, part, letter, width, height, scrollbar, fold, marks } = held;
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew when one of these is another
  useEffect(() => {
    if (waits) return;
    const asked = latest.current;
    const gone = new AbortController();
    const timer = window.setTimeout(() => {
      askStage(asked, gone.signal).then(
        (reading) => {
          setStaged({ held: asked, reading });
          setRefused(undefined);
        },
        (problem: unknown) => {
          if (problem instanceof ProblemError) setRefused(problem.message);
        },
      );
    }, REST_MS);
    return () => {
      window.clearTimeout(timer);
      gone.abort();
    };
  }, [draft, plan, part, letter, width, height, scrollbar, fold, marks, waits]);
  return { staged, isNow: !!staged && isSame(held, staged.held), refused };
}
