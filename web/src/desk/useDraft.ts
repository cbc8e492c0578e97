/**
 * The placement under the designer's hand: changes, undo and redo, saving by itself, conflict and
 * offline.
 */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";
import { client, data, dataAs, ProblemError } from "../api/client";
import {
  type PlacementHistory as History_,
  keys,
  type Look,
  type Part,
  type Placement,
  type PlacementBody,
  type Treatment,
} from "../api/queries";
import { type Draft, history, historyToSave, type Synced, withPart, withTreatment } from "./draft";
import { useEdits } from "./useEdits";

/** `looking`: whoever may only look at the site can try things; nothing of it is kept. */
export type Saving =
  | { kind: "looking" }
  | { kind: "saved" }
  | { kind: "saving" }
  | { kind: "waiting" }
  | { kind: "refused"; error: ProblemError }
  | { kind: "retrying"; error: ProblemError }
  | { kind: "conflict"; theirs: Placement; said: string; differs: string[] };

const draftOf = (p: { placement: PlacementBody; looks?: Record<string, Look> }): Draft => ({
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
/** Widths to export are moved: nothing shows otherwise, and what it costs is to be seen at once. */
export const RUNGS = "rungs ";

/** `part` is the one that is worked on; `keeps` whether whoever works on it may change the site. */
export function useDraft(loaded: Placement, part: number, keeps: boolean) {
  const [state, dispatch] = useReducer(history, {
    past: [],
    now: draftOf(loaded),
    future: [],
    group: null,
  });
  const [saving, setSaving] = useState<Saving>({ kind: keeps ? "saved" : "looking" });
  const revision = useRef(loaded.revision);
  const lookRevisions = useRef(loaded.look_revisions);
  const kept = useRef<Draft>(state.now);
  const flight = useRef<Promise<boolean>>(null);
  const synced = useRef<Synced>(undefined);
  const now = useRef(state.now);
  const whole = useRef(state);
  now.current = state.now;
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
        dispatch({
          kind: "remember",
          from,
          past: drafts.slice(0, at),
          future: drafts.slice(at + 1),
        });
      } catch {
        // without it, undo reaches back to the beginning of this visit
      }
    },
    [loaded.id],
  );
  useEffect(() => {
    void remember(kept.current);
  }, [remember]);

  const put = useCallback(
    async (draft: Draft): Promise<boolean> => {
      setSaving({ kind: "saving" });
      const line = historyToSave(whole.current, synced.current);
      try {
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
        setSaving(now.current === draft ? { kind: "saved" } : { kind: "waiting" });
        queries.invalidateQueries({ queryKey: keys.placements(loaded.site_id) });
        queries.invalidateQueries({ queryKey: keys.originals(loaded.site_id) });
        queries.invalidateQueries({ queryKey: keys.delivery(loaded.id) });
        queries.invalidateQueries({ queryKey: keys.history(loaded.id) });
        return true;
      } catch (e) {
        const error =
          e instanceof ProblemError
            ? e
            : new ProblemError({ type: "", title: "", status: 0, detail: String(e) });
        if (error.status === 409)
          setSaving({
            kind: "conflict",
            theirs: error.problem.theirs as Placement,
            said: error.problem.detail,
            differs: (error.problem.errors ?? []).map((d) => d.sentence),
          });
        else if (error.status === 0 || error.status >= 500) setSaving({ kind: "retrying", error });
        else setSaving(now.current === draft ? { kind: "refused", error } : { kind: "waiting" });
        return false;
      }
    },
    [loaded.id, loaded.site_id, queries, remember],
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
    flight.current = put(now.current);
    const good = await flight.current;
    flight.current = null;
    return good && now.current === kept.current;
  }, [put, keeps]);

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
  }, [state.now, blocked, save]);

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

  const unsaved = keeps && state.now !== kept.current;
  useEffect(() => {
    if (!unsaved) return;
    const warn = (e: BeforeUnloadEvent) => e.preventDefault();
    window.addEventListener("beforeunload", warn);
    return () => window.removeEventListener("beforeunload", warn);
  }, [unsaved]);
  // leaving the desk saves what is still waiting
  useEffect(
    () => () => {
      if (now.current !== kept.current) void save();
    },
    [save],
  );

  const change = useCallback(
    (fn: (draft: Draft) => Draft, group?: string) =>
      dispatch({ kind: "change", change: fn, group }),
    [],
  );

  const { edit, refused, forget } = useEdits(loaded.site_id, now, change);

  const treat = useCallback(
    (letter: string, values: Treatment, group?: string) =>
      change((draft) => withTreatment(draft, part, letter, values), group),
    [change, part],
  );

  const setPart = useCallback(
    (values: Partial<Part>, group?: string) =>
      change((draft) => withPart(draft, part, values), group),
    [change, part],
  );

  const look = useCallback(
    (original: number, values: Partial<Look>, group?: string) =>
      change((draft) => {
        const before = draft.looks[original] ?? { focal: [0.5, 0.5], areas: [] };
        return { ...draft, looks: { ...draft.looks, [original]: { ...before, ...values } } };
      }, group),
    [change],
  );

  const undo = useCallback(() => dispatch({ kind: "undo" }), []);
  const redo = useCallback(() => dispatch({ kind: "redo" }), []);
  const settle = useCallback(() => dispatch({ kind: "settle" }), []);
  /** To a version of the server's history, by its position. */
  const goTo = useCallback((position: number) => {
    const line = historyToSave(whole.current, synced.current);
    if (line) dispatch({ kind: "go", to: position - line.first });
  }, []);
  /** Their version becomes what is saved. */
  const adopt = useCallback((theirs: Placement): Draft => {
    revision.current = theirs.revision;
    lookRevisions.current = theirs.look_revisions;
    kept.current = draftOf(theirs);
    synced.current = undefined;
    return kept.current;
  }, []);
  const takeTheirs = useCallback(
    (theirs: Placement) => {
      const draft = adopt(theirs);
      dispatch({ kind: "take", now: draft });
      setSaving({ kind: "saved" });
      void remember(draft);
    },
    [adopt, remember],
  );
  const keepMine = useCallback(
    (theirs: Placement) => {
      adopt(theirs);
      setSaving({ kind: "waiting" });
    },
    [adopt],
  );
  const acts = useMemo(
    () => ({
      save,
      change,
      edit,
      forget,
      treat,
      setPart,
      look,
      undo,
      redo,
      goTo,
      settle,
      takeTheirs,
      keepMine,
    }),
    [
      save,
      change,
      edit,
      forget,
      treat,
      setPart,
      look,
      undo,
      redo,
      goTo,
      settle,
      takeTheirs,
      keepMine,
    ],
  );
  return useMemo(
    () => ({
      ...acts,
      draft: state.now,
      saving,
      /** Why the last edit could not be had. */
      refused,
      part,
      previous: state.past.at(-1),
      /** Whether something that shows is being dragged, or moved by keys. */
      moves: state.group !== null && !state.group.startsWith(RUNGS),
      canUndo: state.past.length > 0,
      canRedo: state.future.length > 0,
    }),
    [acts, state, saving, refused, part],
  );
}

export type DraftHandle = ReturnType<typeof useDraft>;
