/** The placement under the designer's hand: changes, undo and redo, saving by itself, conflict and offline. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useReducer, useRef, useState } from "react";
import { client, data, ProblemError } from "../api/client";
import { keys, type Look, type Placement, type PlacementBody, type Treatment } from "../api/queries";

export interface Draft {
  placement: PlacementBody;
  looks: Record<string, Look>;
}

interface History {
  past: Draft[];
  now: Draft;
  future: Draft[];
  group: string | null;
}

export type HistoryAction =
  | { kind: "change"; change: (draft: Draft) => Draft; group?: string }
  | { kind: "undo" }
  | { kind: "redo" }
  | { kind: "take"; draft: Draft }
  | { kind: "settle" };

const MOST_STEPS = 200;

/** Changes of one group (a drag) undo as one. */
export function history(state: History, action: HistoryAction): History {
  switch (action.kind) {
    case "change": {
      const now = action.change(state.now);
      if (now === state.now) return state;
      const joined = action.group !== undefined && action.group === state.group;
      const past = joined ? state.past : [...state.past, state.now].slice(-MOST_STEPS);
      return { past, now, future: [], group: action.group ?? null };
    }
    case "undo": {
      const before = state.past[state.past.length - 1];
      if (!before) return state;
      return { past: state.past.slice(0, -1), now: before, future: [state.now, ...state.future], group: null };
    }
    case "redo": {
      const [next, ...rest] = state.future;
      if (!next) return state;
      return { past: [...state.past, state.now], now: next, future: rest, group: null };
    }
    case "take":
      return { past: [], now: action.draft, future: [], group: null };
    case "settle":
      return state.group === null ? state : { ...state, group: null };
  }
}

/** Set or, with undefined, hand down again fields of one span's treatment. */
export function withTreatment(draft: Draft, letter: string, values: Partial<Treatment>): Draft {
  const merged = { ...draft.placement.treatments?.[letter], ...values };
  const own = Object.fromEntries(Object.entries(merged).filter(([, v]) => v !== undefined && v !== null));
  return {
    ...draft,
    placement: { ...draft.placement, treatments: { ...draft.placement.treatments, [letter]: own as Treatment } },
  };
}

export type Saving =
  | { kind: "saved" }
  | { kind: "saving" }
  | { kind: "waiting" }
  | { kind: "refused"; error: ProblemError }
  | { kind: "offline" }
  | { kind: "conflict"; theirs: Placement };

const draftOf = (p: Placement): Draft => ({ placement: p.placement, looks: p.looks });

/** Save this long after the last change. */
const QUIET_MS = 500;
const RETRY_MS = 4000;

export function useDraft(loaded: Placement) {
  const [state, dispatch] = useReducer(history, { past: [], now: draftOf(loaded), future: [], group: null });
  const [saving, setSaving] = useState<Saving>({ kind: "saved" });
  const revision = useRef(loaded.revision);
  const kept = useRef<Draft>(state.now);
  const flight = useRef<Promise<boolean>>(null);
  const now = useRef(state.now);
  now.current = state.now;
  const queries = useQueryClient();

  const put = useCallback(
    async (draft: Draft): Promise<boolean> => {
      setSaving({ kind: "saving" });
      try {
        const out = await data(
          client.PUT("/api/placements/{placement_id}", {
            params: { path: { placement_id: loaded.id } },
            body: { revision: revision.current, placement: draft.placement, looks: draft.looks } as never,
          }),
        );
        revision.current = out.revision;
        kept.current = draft;
        setSaving(now.current === draft ? { kind: "saved" } : { kind: "waiting" });
        queries.invalidateQueries({ queryKey: keys.placements(loaded.site_id) });
        queries.invalidateQueries({ queryKey: keys.originals(loaded.site_id) });
        queries.invalidateQueries({ queryKey: keys.delivery(loaded.id) });
        return true;
      } catch (e) {
        const error =
          e instanceof ProblemError ? e : new ProblemError({ type: "", title: "", status: 0, detail: String(e) });
        if (error.status === 409) setSaving({ kind: "conflict", theirs: error.problem.theirs as Placement });
        else if (error.status === 0 || error.status >= 500) setSaving({ kind: "offline" });
        else setSaving(now.current === draft ? { kind: "refused", error } : { kind: "waiting" });
        return false;
      }
    },
    [loaded.id, loaded.site_id, queries],
  );

  /** Save what is not saved yet; waits for a save that is on its way. True when all is saved. */
  const save = useCallback(async (): Promise<boolean> => {
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
  }, [put]);

  const blocked = saving.kind === "conflict";
  useEffect(() => {
    if (blocked) return;
    if (state.now === kept.current) {
      // undone back to what is saved: nothing is waiting any more
      setSaving((s) => (s.kind === "waiting" || s.kind === "refused" ? { kind: "saved" } : s));
      return;
    }
    setSaving((s) => (s.kind === "saving" || s.kind === "offline" ? s : { kind: "waiting" }));
    const timer = setTimeout(save, QUIET_MS);
    return () => clearTimeout(timer);
  }, [state.now, blocked, save]);

  useEffect(() => {
    if (saving.kind === "waiting") {
      const timer = setTimeout(save, QUIET_MS);
      return () => clearTimeout(timer);
    }
    if (saving.kind !== "offline") return;
    const timer = setInterval(save, RETRY_MS);
    window.addEventListener("online", save);
    return () => {
      clearInterval(timer);
      window.removeEventListener("online", save);
    };
  }, [saving, save]);

  const unsaved = state.now !== kept.current;
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
    (fn: (draft: Draft) => Draft, group?: string) => dispatch({ kind: "change", change: fn, group }),
    [],
  );

  const treat = useCallback(
    (letter: string, values: Partial<Treatment>, group?: string) =>
      change((draft) => withTreatment(draft, letter, values), group),
    [change],
  );

  const look = useCallback(
    (original: number, values: Partial<Look>, group?: string) =>
      change((draft) => {
        const before = draft.looks[original] ?? { focal: [0.5, 0.5], areas: [] };
        return { ...draft, looks: { ...draft.looks, [original]: { ...before, ...values } } };
      }, group),
    [change],
  );

  return {
    draft: state.now,
    saving,
    save,
    change,
    treat,
    look,
    undo: useCallback(() => dispatch({ kind: "undo" }), []),
    redo: useCallback(() => dispatch({ kind: "redo" }), []),
    settle: useCallback(() => dispatch({ kind: "settle" }), []),
    canUndo: state.past.length > 0,
    canRedo: state.future.length > 0,
    takeTheirs: (theirs: Placement) => {
      revision.current = theirs.revision;
      const draft = draftOf(theirs);
      kept.current = draft;
      dispatch({ kind: "take", draft });
      setSaving({ kind: "saved" });
    },
    keepMine: (theirs: Placement) => {
      revision.current = theirs.revision;
      setSaving({ kind: "waiting" });
    },
  };
}

export type DraftHandle = ReturnType<typeof useDraft>;
