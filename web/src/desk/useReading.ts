/**
 * The reading of a draft: one question on its way at a time, then the latest; an overtaken answer is
 * never shown. While something moves only what moves is asked for; the rest follows when it has
 * rested for a moment.
 */
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { ProblemError } from "../api/client";
import type { Reading, WholeReading } from "../api/queries";
import { type Asked, askAll, askMoving, isSame } from "./asking";
import type { Draft } from "./draft";
import { lastSet, type Shown, type SpanSet } from "./lastSet";
import { merged } from "./merged";

/** What has not moved for so long rests. */
const REST_MS = 150;
/** Where one of these is another, what moves is not all that is. */
const BESIDE = [
  "part",
  "chosen",
  "costs",
  "words",
  "every",
  "scrollbar",
  "conditions",
  "stamp",
] as const;

/** What of a reading is older than what was asked: nothing, all, or all but what moves. */
export type Pending = "nothing" | "rest" | "all";

/** What the last step changed. */
export interface Changed {
  /** The spans that show otherwise than in the draft before this one. */
  touched: string[];
  /** What it set, where it was one span. */
  set: SpanSet | undefined;
  /** The part that was worked on, and the placement before. */
  part: number;
  before: Draft["placement"];
}

/** `previous` is the draft before this one. */
export function useReading(asked: Asked, previous: Draft | undefined) {
  const { whole, error, answered, shown } = useAnswers(asked);
  const { draft, part } = asked;
  const reading = useMemo<Reading | undefined>(() => {
    // of many items only one is read: until another one's answer is here the last one shows
    const mine = whole?.parts[part] ?? (whole?.items ? Object.values(whole.parts)[0] : undefined);
    return whole && mine && { ...whole, ...mine, part };
  }, [whole, part]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: with each reading more is known
  const changed = useMemo(
    () => previous && changedBy(shown, previous, draft),
    [whole, draft, previous],
  );
  // what cannot be read has been answered too: with the reason
  const isRead = isSame(asked, answered.all) || isSame(asked, answered.failed);
  const pending: Pending = isRead ? "nothing" : isSame(asked, answered.moved) ? "rest" : "all";
  return { reading, error, changed, pending };
}

function changedBy(
  shown: WeakMap<Draft, Shown>,
  previous: Draft,
  draft: Draft,
): Changed | undefined {
  const [before, now] = [shown.get(previous), shown.get(draft)];
  if (!before || !now || before.part !== now.part) return undefined;
  const { part } = now;
  const then = new Map(before.spans.map((s) => [s.letter, s.fingerprint]));
  const touched = now.spans
    .filter((s) => then.get(s.letter) !== s.fingerprint)
    .map((s) => s.letter);
  return { touched, set: lastSet(previous, draft, part), part, before: previous.placement };
}

/** What the last answers were of. */
interface Answered {
  all?: Asked;
  moved?: Asked;
  failed?: Asked;
}

/** The answers to what is asked, as they come; `shown` is what drafts showed that have been read. */
function useAnswers(asked: Asked) {
  const [whole, setWhole] = useState<WholeReading>();
  const [error, setError] = useState<ProblemError>();
  const [answered, setAnswered] = useState<Answered>({});
  /** What the reading on screen is of: all of it, or only what moves. */
  const read = useRef<Answered>({});
  const shown = useRef(new WeakMap<Draft, Shown>());

  /** Asks, and shows the answer. Throws what refuses. */
  const answer = useCallback(async (a: Asked, onlyMoves: boolean, signal: AbortSignal) => {
    if (onlyMoves) {
      const moving = await askMoving(a, signal);
      setWhole((before) => before && merged(before, moving));
    } else {
      const all = await askAll(a, signal);
      read.current.all = a;
      const { spans } = all.parts[a.part] ?? {};
      if (spans) shown.current.set(a.draft, { part: a.part, spans });
      setWhole(all);
    }
    read.current.moved = a;
    setAnswered({ ...read.current });
    setError(undefined);
  }, []);
  const refuse = useCallback((a: Asked, e: unknown) => {
    setError(e instanceof ProblemError ? e : undefined);
    setAnswered({ ...read.current, failed: a });
  }, []);
  useAsking(asked, read, answer, refuse);
  return { whole, error, answered, shown: shown.current };
}

/** Asks whenever what is asked for has changed: one question at a time, the latest next. */
function useAsking(
  asked: Asked,
  read: { readonly current: Answered },
  answer: (a: Asked, onlyMoves: boolean, signal: AbortSignal) => Promise<void>,
  refuse: (a: Asked, e: unknown) => void,
) {
  const wanted = useRef(asked);
  wanted.current = asked;
  const going = useRef(false);
  const gone = useRef(false);
  const abort = useRef<AbortController>(undefined);
  /** Whether all is being asked for. */
  const isForAll = useRef(false);
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined);

  const ask = useCallback(
    async (atRest?: Asked) => {
      if (going.current) return;
      going.current = true;
      while (!gone.current) {
        const a = wanted.current;
        const onlyMoves = a.moves && a !== atRest && isSame(a, read.current.all, BESIDE);
        if (isSame(a, read.current.all) || (onlyMoves && isSame(a, read.current.moved))) break;
        abort.current = new AbortController();
        isForAll.current = !onlyMoves;
        try {
          await answer(a, onlyMoves, abort.current.signal);
        } catch (e) {
          // it moved on: what moves is asked for instead
          if (e instanceof DOMException) continue;
          refuse(a, e);
          if (isSame(a, wanted.current)) break;
        }
      }
      going.current = false;
    },
    [read, answer, refuse],
  );

  const { draft, plan, part, chosen, costs, words, every, scrollbar, conditions, stamp, moves } =
    asked;
  // biome-ignore lint/correctness/useExhaustiveDependencies: asks again whenever what is to be read has changed
  useEffect(() => {
    clearTimeout(rest.current);
    // what moves does not wait for all that was asked for while it stood still
    if (moves && isForAll.current && read.current.all) abort.current?.abort();
    void ask();
    const whenAtRest = () => {
      if (going.current) rest.current = setTimeout(whenAtRest, REST_MS);
      else void ask(wanted.current);
    };
    if (moves) rest.current = setTimeout(whenAtRest, REST_MS);
  }, [draft, plan, part, chosen, costs, words, every, scrollbar, conditions, stamp, moves]);

  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
      clearTimeout(rest.current);
      abort.current?.abort();
    };
  }, []);
}
