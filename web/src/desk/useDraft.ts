/**
 * The placement under the designer's hand: changes, undo and redo, saving by itself, conflict and
 * offline.
 */
import { useCallback, useMemo, useReducer } from "react";
import type { Look, Part, Placement, Treatment } from "../api/queries";
import { type Draft, history, withPart, withTreatment } from "./draft";
import { useEdits } from "./useEdits";
import { draftOf, useSaving, WAITING } from "./useSaving";

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
  const saved = useSaving(loaded, state, dispatch, keeps);
  const { saving, save, placeOf, takeTheirs, keepMine, now } = saved;
  const change = useCallback(
    (fn: (draft: Draft) => Draft, group?: string) =>
      dispatch({ kind: "change", change: fn, group }),
    [],
  );
  const { edit, busy, takeBack, refused, forget } = useEdits(loaded.site_id, now, change);
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
  // what is under way is the last step: it is that which is taken back
  const undo = useCallback(() => {
    if (busy) takeBack();
    else dispatch({ kind: "undo" });
  }, [busy, takeBack]);
  const redo = useCallback(() => dispatch({ kind: "redo" }), []);
  const settle = useCallback(() => dispatch({ kind: "settle" }), []);
  /** To a version of the server's history, by its position. */
  const goTo = useCallback(
    (position: number) => {
      const to = placeOf(position);
      if (to !== undefined) dispatch({ kind: "go", to });
    },
    [placeOf],
  );
  const acts = useMemo(
    () => ({ save, change, edit, forget, treat, setPart, look, undo, redo, goTo, settle }),
    [save, change, edit, forget, treat, setPart, look, undo, redo, goTo, settle],
  );
  return useMemo(
    () => ({
      ...acts,
      takeTheirs,
      keepMine,
      draft: state.now,
      // what is still to come is not saved either
      saving: busy && saving.kind === "saved" ? WAITING : saving,
      /** Why the last edit could not be had. */
      refused,
      part,
      previous: state.past.at(-1),
      /** Whether something that shows is being dragged, or moved by keys. */
      moves: state.group !== null && !state.group.startsWith(RUNGS),
      canUndo: busy || state.past.length > 0,
      canRedo: state.future.length > 0,
    }),
    [acts, takeTheirs, keepMine, state, saving, busy, refused, part],
  );
}

export type DraftHandle = ReturnType<typeof useDraft>;
