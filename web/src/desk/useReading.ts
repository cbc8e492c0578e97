/**
 * The reading of a draft: one question on its way at a time, then the latest; an overtaken answer
 * is never shown. While something moves only what moves is asked for; the rest follows when it has
 * rested for a moment.
 */
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { client, dataAs, ProblemError } from "../api/client";
import type { Moving, Reading, SitePlan, WholeReading } from "../api/queries";
import type { Draft } from "./draft";
import { lastSet, type Shown, type SpanSet } from "./lastSet";
import { merged } from "./merged";

/** What has not moved for so long rests. */
const REST_MS = 150;

/** What is read, and whether it is on the move. */
export interface Asked {
  siteId: number;
  placementId: number;
  draft: Draft;
  plan: SitePlan | undefined;
  part: number;
  chosen: string | undefined;
  costs: boolean;
  words: boolean;
  /** Files and code of all items, where there are many. */
  every: boolean;
  /** What a scrollbar takes of the page, in CSS px. */
  scrollbar: number;
  /** Another value: something that the server knows has changed. */
  stamp: unknown;
  /**
   * The revision in which the draft is stored as it stands; undefined for one that has been
   * changed.
   */
  stored: number | undefined;
  moves: boolean;
}

const FIELDS = [
  "draft",
  "plan",
  "part",
  "chosen",
  "costs",
  "words",
  "every",
  "scrollbar",
  "stamp",
] as const;
const isSame = (a: Asked, b: Asked | undefined, fields: readonly (keyof Asked)[] = FIELDS) =>
  b !== undefined && fields.every((f) => a[f] === b[f]);

const bodyOf = (a: Asked) => ({
  placement: a.draft.placement,
  placement_id: a.placementId,
  looks: a.draft.looks,
  site: a.plan,
  scrollbar_px: a.scrollbar,
});

/** As it is stored: to be had from what comes first. */
const askStored = (a: Asked, revision: number, signal: AbortSignal) =>
  dataAs<WholeReading>(
    client.GET("/api/placements/{placement_id}/reading", {
      params: {
        path: { placement_id: a.placementId },
        query: {
          part: a.part,
          chosen: a.chosen,
          words: a.words,
          every: a.every,
          scrollbar_px: a.scrollbar,
          revision,
        },
      },
      signal,
    }),
  );

async function askAll(a: Asked, signal: AbortSignal) {
  if (a.stored !== undefined && !a.plan && !a.costs) {
    try {
      return await askStored(a, a.stored, signal);
    } catch (e) {
      // somebody has saved it anew: what stands here is read
      if (!(e instanceof ProblemError) || e.status !== 409) throw e;
    }
  }
  return askDraft(a, signal);
}

const askDraft = (a: Asked, signal: AbortSignal) =>
  dataAs<WholeReading>(
    client.POST("/api/sites/{site_id}/readings", {
      params: { path: { site_id: a.siteId } },
      body: {
        ...bodyOf(a),
        part: a.part,
        chosen: a.chosen,
        costs: a.costs,
        words: a.words,
        every: a.every,
      },
      signal,
    }),
  );

const askMoving = (a: Asked, signal: AbortSignal) =>
  dataAs<Moving>(
    client.POST("/api/sites/{site_id}/readings/moving", {
      params: { path: { site_id: a.siteId } },
      body: { ...bodyOf(a), part: a.part, chosen: a.chosen },
      signal,
    }),
  );

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
  const [whole, setWhole] = useState<WholeReading>();
  const [error, setError] = useState<ProblemError>();
  /** What the last answers were of. */
  const [answered, setAnswered] = useState<{ all?: Asked; moved?: Asked; failed?: Asked }>({});
  const wanted = useRef(asked);
  wanted.current = asked;
  /** What the reading on screen is of: all of it, or only what moves. */
  const read = useRef<{ all?: Asked; moved?: Asked }>({});
  const going = useRef(false);
  const gone = useRef(false);
  const abort = useRef<AbortController>(undefined);
  /** Whether all is being asked for. */
  const isForAll = useRef(false);
  const rest = useRef<ReturnType<typeof setTimeout>>(undefined);
  const shown = useRef(new WeakMap<Draft, Shown>());

  const ask = useCallback(async (atRest?: Asked) => {
    if (going.current) return;
    going.current = true;
    while (!gone.current) {
      const a = wanted.current;
      const onlyMoves =
        a.moves &&
        a !== atRest &&
        isSame(a, read.current.all, [
          "part",
          "chosen",
          "costs",
          "words",
          "every",
          "scrollbar",
          "stamp",
        ]);
      if (isSame(a, read.current.all) || (onlyMoves && isSame(a, read.current.moved))) break;
      abort.current = new AbortController();
      isForAll.current = !onlyMoves;
      try {
        if (onlyMoves) {
          const moving = await askMoving(a, abort.current.signal);
          setWhole((before) => before && merged(before, moving));
        } else {
          const all = await askAll(a, abort.current.signal);
          read.current.all = a;
          const { spans } = all.parts[a.part] ?? {};
          if (spans) shown.current.set(a.draft, { part: a.part, spans });
          setWhole(all);
        }
        read.current.moved = a;
        setAnswered({ ...read.current });
        setError(undefined);
      } catch (e) {
        // it moved on: what moves is asked for instead
        if (e instanceof DOMException) continue;
        setError(e instanceof ProblemError ? e : undefined);
        setAnswered({ ...read.current, failed: a });
        if (isSame(a, wanted.current)) break;
      }
    }
    going.current = false;
  }, []);

  const { draft, plan, part, chosen, costs, words, every, scrollbar, stamp, moves } = asked;
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
  }, [draft, plan, part, chosen, costs, words, every, scrollbar, stamp, moves]);

  useEffect(() => {
    gone.current = false;
    return () => {
      gone.current = true;
      clearTimeout(rest.current);
      abort.current?.abort();
    };
  }, []);

  const reading = useMemo<Reading | undefined>(() => {
    // of many items only one is read: until another one's answer is here the last one shows
    const mine = whole?.parts[part] ?? (whole?.items ? Object.values(whole.parts)[0] : undefined);
    return whole && mine && { ...whole, ...mine, part };
  }, [whole, part]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: with each reading more is known
  const changed = useMemo<Changed | undefined>(() => {
    const before = previous && shown.current.get(previous);
    const now = shown.current.get(draft);
    if (!previous || !before || !now || before.part !== now.part) return undefined;
    const then = new Map(before.spans.map((s) => [s.letter, s.fingerprint]));
    const touched = now.spans
      .filter((s) => then.get(s.letter) !== s.fingerprint)
      .map((s) => s.letter);
    return {
      touched,
      set: lastSet(previous, draft, now.part),
      part: now.part,
      before: previous.placement,
    };
  }, [whole, draft, previous]);
  // what cannot be read has been answered too: with the reason
  const isRead = isSame(asked, answered.all) || isSame(asked, answered.failed);
  const pending: Pending = isRead ? "nothing" : isSame(asked, answered.moved) ? "rest" : "all";
  return { reading, error, changed, pending };
}
