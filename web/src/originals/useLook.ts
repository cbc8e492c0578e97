/**
 * An original's focal point and areas under the designer's hand: saved by itself, undone and redone
 * within the visit.
 */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useReducer, useRef, useState } from "react";
import { client, dataAs, ProblemError } from "../api/client";
import { keys, type Look, type Original } from "../api/queries";
import { undoable } from "../ui/undo";

const QUIET_MS = 500;

export type LookState =
  | { kind: "saved" }
  | { kind: "saving" }
  | { kind: "failed"; said: string }
  | { kind: "conflict"; said: string; theirs: Original };

const lookOf = (o: Original): Look => ({ focal: o.focal as [number, number], areas: o.areas });

export function useLook(siteId: number, original: Original) {
  const [line, dispatch] = useReducer(undoable<Look>, {
    past: [],
    now: lookOf(original),
    future: [],
    group: null,
  });
  const look = line.now;
  const [state, setState] = useState<LookState>({ kind: "saved" });
  const revision = useRef(original.revision);
  const kept = useRef(look);
  const queries = useQueryClient();

  const save = useCallback(
    async (now: Look) => {
      setState({ kind: "saving" });
      try {
        const out = await dataAs<Original>(
          client.PUT("/api/originals/{original_id}/look", {
            params: { path: { original_id: original.id } },
            body: { ...now, revision: revision.current },
          }),
        );
        revision.current = out.revision;
        kept.current = now;
        setState({ kind: "saved" });
        queries.invalidateQueries({ queryKey: keys.originals(siteId) });
        queries.invalidateQueries({ queryKey: keys.placements(siteId) });
      } catch (e) {
        const error = e instanceof ProblemError ? e : undefined;
        const said = error?.message ?? String(e);
        setState(
          error?.status === 409
            ? { kind: "conflict", said, theirs: error.problem.theirs as Original }
            : { kind: "failed", said },
        );
      }
    },
    [original.id, queries, siteId],
  );
  const blocked = state.kind === "conflict" || state.kind === "saving";
  useEffect(() => {
    if (blocked || look === kept.current) return;
    const timer = setTimeout(() => void save(look), QUIET_MS);
    return () => clearTimeout(timer);
  }, [look, blocked, save]);
  // what is still waiting when the sheet is closed
  const last = useRef(look);
  last.current = look;
  useEffect(
    () => () => {
      if (last.current !== kept.current) void save(last.current);
    },
    [save],
  );

  const put = (theirs: Original, mine: boolean) => {
    revision.current = theirs.revision;
    kept.current = lookOf(theirs);
    if (!mine) dispatch({ kind: "take", now: kept.current });
    setState({ kind: "saved" });
  };
  // a change that waits for its moment is not "saved"
  const shown: LookState =
    state.kind === "saved" && look !== kept.current ? { kind: "saving" } : state;
  return {
    look,
    state: shown,
    change: (values: Partial<Look>, group?: string) =>
      dispatch({ kind: "change", change: (now) => ({ ...now, ...values }), group }),
    settle: () => dispatch({ kind: "settle" }),
    undo: () => dispatch({ kind: "undo" }),
    redo: () => dispatch({ kind: "redo" }),
    canUndo: line.past.length > 0,
    canRedo: line.future.length > 0,
    keepMine: (theirs: Original) => put(theirs, true),
    takeTheirs: (theirs: Original) => put(theirs, false),
  };
}
