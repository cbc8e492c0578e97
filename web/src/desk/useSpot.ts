/** Where on the ground a sentence leads to, and the way back from there once it is mended. */
import { type RefObject, useCallback, useEffect, useMemo, useState } from "react";
import type { Step } from "./Steps";

export interface Spot {
  /** A value of the step, or what is done there: `data-spot` names them on the ground. */
  at: string;
  step: Step;
  /** The step, and the place in it, that the sentence stands in. */
  from: { at: string; step: Step };
}

export interface Seeking {
  spot: Spot | undefined;
  /** Go to a place of a step. `from` names the place that the sentence stands in. */
  seek: (at: string, step: Step, from?: string) => void;
  /** What the sentence asked for is done: back to where it stands. */
  comeBack: () => void;
  /** It has been seen to. */
  leave: () => void;
}

/** A step may have to be read first. */
const LOOK_MS = 100;
const LOOKS = 30;
const LIT_MS = 1600;
/** What of a place the keys go to. */
const FOCUSED = ["input:not([type=hidden])", "textarea", "button", "[role=slider]"]
  .map((s) => `${s}:not(:disabled):not([tabindex='-1'])`)
  .join();

export function useSpot(
  step: Step,
  go: (step: Step) => void,
  ground: RefObject<HTMLElement | null>,
): Seeking {
  const [spot, setSpot] = useState<Spot>();
  const leave = useCallback(() => setSpot(undefined), []);
  const seek = useCallback(
    (at: string, to: Step, from = "") => {
      setSpot({ at, step: to, from: { at: from, step } });
      if (to !== step) go(to);
    },
    [step, go],
  );
  const comeBack = useCallback(() => {
    if (!spot) return;
    const { from } = spot;
    setSpot(
      from.step !== spot.step && from.at ? { at: from.at, step: from.step, from } : undefined,
    );
    if (from.step !== step) go(from.step);
  }, [spot, step, go]);
  useEffect(() => {
    if (!spot?.at || spot.step !== step) return;
    let looks = 0;
    let lit: Element | null = null;
    const timer = setInterval(() => {
      lit = ground.current?.querySelector(`[data-spot~="${CSS.escape(spot.at)}"]`) ?? null;
      if (!lit && ++looks < LOOKS) return;
      clearInterval(timer);
      if (!lit) return;
      lit.scrollIntoView({ block: "nearest" });
      lit.setAttribute("data-lit", "");
      const focused = lit.matches(FOCUSED) ? lit : lit.querySelector(FOCUSED);
      (focused as HTMLElement | null)?.focus({ preventScroll: true });
      setTimeout(() => lit?.removeAttribute("data-lit"), LIT_MS);
    }, LOOK_MS);
    return () => {
      clearInterval(timer);
      lit?.removeAttribute("data-lit");
    };
  }, [spot, step, ground]);
  return useMemo(() => ({ spot, seek, comeBack, leave }), [spot, seek, comeBack, leave]);
}
