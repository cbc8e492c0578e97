/**
 * A handle in hand: where it is asked to be goes to the core, one question at a time and then the
 * latest, and what comes back is the draft. One pull is one version.
 */
import { useCallback, useRef, useState } from "react";
import { ProblemError } from "../../../api/client";
import { useWork } from "../../context";
import { useLaying } from "../useLaying";
import { askPull, type HandleReading, type Held, type Pulled, type PulledTo } from "./ask";
import { withPulled } from "./pulling";
import type { Staged } from "./useStage";

export interface InHand {
  handle: HandleReading;
  /** The stage as it was before. */
  from: Staged;
  /** Where the hand is, in CSS px along the handle's axis. */
  at: number;
  found: Pulled | undefined;
}

type Asked = Omit<PulledTo, "handle">;

interface Hold {
  staged: Staged;
  handle: HandleReading;
  group: string;
  busy: boolean;
  next: Asked | undefined;
  over: boolean;
  gone: boolean;
}

let pulls = 0;

export function usePull() {
  const { handle: draft } = useWork();
  const lay = useLaying();
  const [inHand, setInHand] = useState<InHand>();
  /** Why the last pull went no farther, or could not be had: it stands until the next one. */
  const [said, setSaid] = useState<string>();
  const hold = useRef<Hold>(undefined);
  const { change, settle, undo } = draft;

  const end = useCallback(
    (mine: Hold) => {
      if (hold.current === mine) hold.current = undefined;
      setInHand(undefined);
      settle();
    },
    [settle],
  );

  const ask = useCallback(
    async (mine: Hold) => {
      if (mine.busy || !mine.next) return;
      mine.busy = true;
      const asked = mine.next;
      mine.next = undefined;
      const { held } = mine.staged;
      try {
        const found = await askPull(held as Held, { handle: mine.handle.id, ...asked } as PulledTo);
        if (!mine.gone) {
          setSaid(found.bound ?? undefined);
          change(() => withPulled(held.draft, held.letter, found, lay), mine.group);
          setInHand((was) => (was && hold.current === mine ? { ...was, found } : was));
        }
      } catch (problem) {
        setSaid(problem instanceof ProblemError ? problem.message : String(problem));
      }
      mine.busy = false;
      if (mine.next) await ask(mine);
      else if (mine.over) end(mine);
    },
    [change, lay, end],
  );

  const take = useCallback((staged: Staged, handle: HandleReading, at: number) => {
    hold.current = {
      staged,
      handle,
      group: `pull ${handle.id} ${++pulls}`,
      busy: false,
      next: undefined,
      over: false,
      gone: false,
    };
    setSaid(undefined);
    setInHand({ handle, from: staged, at, found: undefined });
  }, []);

  const move = useCallback(
    (asked: Asked) => {
      const mine = hold.current;
      if (!mine) return;
      mine.next = asked;
      const { to } = asked;
      if (to != null) setInHand((was) => was && { ...was, at: to });
      void ask(mine);
    },
    [ask],
  );

  /** The hand lets go; what is under way still counts. */
  const drop = useCallback(() => {
    const mine = hold.current;
    if (!mine) return;
    mine.over = true;
    if (!mine.busy) end(mine);
  }, [end]);

  /** As it was before. */
  const takeBack = useCallback(() => {
    const mine = hold.current;
    if (!mine) return;
    mine.gone = true;
    mine.next = undefined;
    const changed = inHand?.found !== undefined;
    end(mine);
    if (changed) undo();
  }, [end, undo, inHand]);

  return { inHand, said, take, move, drop, takeBack };
}
