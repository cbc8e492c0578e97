/**
 * What is kept of the placement under the designer's hand: saved by itself a moment after the last
 * change, tried again where there is no answer, in conflict where somebody else has saved.
 */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { client, data, dataAs, ProblemError } from "../api/client";
import {
  type PlacementHistory as History_,
  keys,
  type Look,
  type Placement,
  type PlacementBody,
} from "../api/queries";
import { type Draft, type History, type HistoryAction, historyToSave, type Synced } from "./draft";

/** `looking`: whoever may only look at the site can try things; nothing of it is kept. */
export type Saving =
  | { kind: "looking" }
  | { kind: "saved" }
  | { kind: "saving" }
  | { kind: "waiting" }
  | { kind: "refused"; error: ProblemError }
  | { kind: "retrying"; error: ProblemError }
  | { kind: "conflict"; theirs: Placement; said: string; differs: string[] };

/** Something is still to come. */
export const WAITING: Saving = { kind: "waiting" };

export const draftOf = (p: { placement: PlacementBody; looks?: Record<string, Look> }): Draft => ({
  placement: p.placement,
  looks: p.looks ?? {},
});

/** The looks that differ from those that are saved. */
const changedLooks = (draft: Draft, kept: Draft) =>
  Object.fromEntries(
    Object.entries(draft.looks).filter(
      ([id, look]) => JSON.stringify(look) !== JSON.stringify(kept.looks[id]),
    ),
  );

/** Save this long after the last change. */
const QUIET_MS = 500;
const RETRY_MS = 4000;

/** A save that was not taken, as it is told. */
function refusal(e: unknown, isLatest: boolean): Saving {
  const error =
    e instanceof ProblemError
      ? e
      : new ProblemError({ type: "", title: "", status: 0, detail: String(e) });
  if (error.status === 409)
    return {
      kind: "conflict",
      theirs: error.problem.theirs as Placement,
      said: error.problem.detail,
      differs: (error.problem.errors ?? []).map((d) => d.sentence),
    };
  if (error.status === 0 || error.status >= 500) return { kind: "retrying", error };
  return isLatest ? { kind: "refused", error } : { kind: "waiting" };
}

/** What the server has, and what it is told: `put` a draft, or `adopt` what somebody else saved. */
function useKept(loaded: Placement, state: History, dispatch: (action: HistoryAction) => void) {
  const revision = useRef(loaded.revision);
  const lookRevisions = useRef(loaded.look_revisions);
  const kept = useRef<Draft>(state.now);
  const synced = useRef<Synced>(undefined);
  const whole = useRef(state);
  whole.current = state;
  const queries = useQueryClient();

  /** Steps of earlier visits go before `from`, the draft as the server has it now. */
  const remember = useCallback(
    async (from: Draft) => {
      try {
        const found = await dataAs<History_>(
          client.GET("/api/placements/{placement_id}/history", {
            params: { path: { placement_id: loaded.id } },
          }),
        );
        const at = found.versions.findIndex((s) => s.position === found.at);
        if (at < 0) return;
        const drafts = found.versions.map((s, i) => (i === at ? from : draftOf(s)));
        synced.current = { drafts, first: found.versions[0]?.position ?? 0 };
        const [past, future] = [drafts.slice(0, at), drafts.slice(at + 1)];
        dispatch({ kind: "remember", from, past, future });
      } catch {
        // without it, undo reaches back to the beginning of this visit
      }
    },
    [loaded.id, dispatch],
  );
  useEffect(() => {
    void remember(kept.current);
  }, [remember]);

  const put = useCallback(
    async (draft: Draft) => {
      const line = historyToSave(whole.current, synced.current);
      const out = await data(
        client.PUT("/api/placements/{placement_id}", {
          params: { path: { placement_id: loaded.id } },
          body: {
            revision: revision.current,
            placement: draft.placement,
            looks: changedLooks(draft, kept.current),
            look_revisions: lookRevisions.current,
            history: line && { keep: line.keep, add: line.add, at: line.at },
          },
        }),
      );
      revision.current = out.revision;
      lookRevisions.current = out.look_revisions;
      kept.current = draft;
      if (line) synced.current = { drafts: line.line, first: line.first };
      else void remember(draft);
      queries.invalidateQueries({ queryKey: keys.placements(loaded.site_id) });
      queries.invalidateQueries({ queryKey: keys.originals(loaded.site_id) });
      queries.invalidateQueries({ queryKey: keys.delivery(loaded.id) });
      queries.invalidateQueries({ queryKey: keys.history(loaded.id) });
    },
    [loaded.id, loaded.site_id, queries, remember],
  );

  /** Their version becomes what is saved. */
  const adopt = useCallback((theirs: Placement): Draft => {
    revision.current = theirs.revision;
    lookRevisions.current = theirs.look_revisions;
    kept.current = draftOf(theirs);
    synced.current = undefined;
    return kept.current;
  }, []);
  /** Where in the history of this visit a version of the server's stands. */
  const placeOf = useCallback((position: number) => {
    const line = historyToSave(whole.current, synced.current);
    return line && position - line.first;
  }, []);
  return { kept, put, adopt, placeOf, remember };
}

/** `keeps`: whether whoever works on it may change the site. */
export function useSaving(
  loaded: Placement,
  state: History,
  dispatch: (action: HistoryAction) => void,
  keeps: boolean,
) {
  const [saving, setSaving] = useState<Saving>({ kind: keeps ? "saved" : "looking" });
  const { kept, put, adopt, placeOf, remember } = useKept(loaded, state, dispatch);
  const flight = useRef<Promise<boolean>>(null);
  const now = useRef(state.now);
  now.current = state.now;

  const send = useCallback(
    async (draft: Draft): Promise<boolean> => {
      setSaving({ kind: "saving" });
      try {
        await put(draft);
        setSaving(now.current === draft ? { kind: "saved" } : { kind: "waiting" });
        return true;
      } catch (e) {
        setSaving(refusal(e, now.current === draft));
        return false;
      }
    },
    [put],
  );
  /** Save what is not saved yet; waits for a save that is on its way. True when all is saved. */
  const save = useCallback(async (): Promise<boolean> => {
    if (!keeps) return true;
    if (flight.current) {
      if (!(await flight.current)) return false;
      return save();
    }
    if (now.current === kept.current) {
      setSaving({ kind: "saved" });
      return true;
    }
    flight.current = send(now.current);
    const good = await flight.current;
    flight.current = null;
    return good && now.current === kept.current;
  }, [send, keeps, kept]);

  const blocked = saving.kind === "conflict" || saving.kind === "looking";
  useEffect(() => {
    if (blocked) return;
    if (state.now === kept.current) {
      // undone back to what is saved: nothing is waiting any more
      setSaving((s) => (s.kind === "waiting" || s.kind === "refused" ? { kind: "saved" } : s));
      return;
    }
    setSaving((s) => (s.kind === "saving" || s.kind === "retrying" ? s : { kind: "waiting" }));
    const timer = setTimeout(save, QUIET_MS);
    return () => clearTimeout(timer);
  }, [state.now, blocked, save, kept]);
  useAgain(saving, save);
  useLeaving(keeps && state.now !== kept.current, () => {
    if (now.current !== kept.current) void save();
  });

  const takeTheirs = useCallback(
    (theirs: Placement) => {
      const draft = adopt(theirs);
      dispatch({ kind: "take", now: draft });
      setSaving({ kind: "saved" });
      void remember(draft);
    },
    [adopt, dispatch, remember],
  );
  const keepMine = useCallback(
    (theirs: Placement) => {
      adopt(theirs);
      setSaving({ kind: "waiting" });
    },
    [adopt],
  );
  // a draft that has just changed is not saved in the very picture that shows it
  const isBehind = saving.kind === "saved" && state.now !== kept.current;
  return { saving: isBehind ? WAITING : saving, save, placeOf, takeTheirs, keepMine, now };
}

/** What waits is saved a moment later, and what had no answer is tried again. */
function useAgain(saving: Saving, save: () => Promise<boolean>) {
  useEffect(() => {
    if (saving.kind === "waiting") {
      const timer = setTimeout(save, QUIET_MS);
      return () => clearTimeout(timer);
    }
    if (saving.kind !== "retrying") return;
    const timer = setInterval(save, RETRY_MS);
    window.addEventListener("online", save);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", save);
    };
  }, [saving, save]);
}

/** Whoever leaves the page is warned; leaving the desk saves what is still waiting. */
function useLeaving(unsaved: boolean, leave: () => void) {
  useEffect(() => {
    if (!unsaved) return;
    const warn = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [unsaved]);
  const latest = useRef(leave);
  latest.current = leave;
  useEffect(() => () => latest.current(), []);
}
