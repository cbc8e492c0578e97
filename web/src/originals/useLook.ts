/** An original's focal point and areas under the designer's hand: saved by itself, undone within the visit. */
import { useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useRef, useState } from "react";
import { client, dataAs, ProblemError } from "../api/client";
import { keys, type Look, type Original } from "../api/queries";

const QUIET_MS = 500;

export type LookState =
  | { kind: "saved" }
  | { kind: "saving" }
  | { kind: "failed"; said: string }
  | { kind: "conflict"; said: string; theirs: Original };

const lookOf = (o: Original): Look => ({ focal: o.focal as [number, number], areas: o.areas });

export function useLook(siteId: number, original: Original) {
  const [look, setLook] = useState<Look>(() => lookOf(original));
  const [state, setState] = useState<LookState>({ kind: "saved" });
  const past = useRef<Look[]>([]);
  const group = useRef<string>(undefined);
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
            body: { ...now, revision: revision.current } as never,
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

  const change = (values: Partial<Look>, name?: string) =>
    setLook((before) => {
      if (name === undefined || name !== group.current) past.current.push(before);
      group.current = name;
      return { ...before, ...values };
    });
  const put = (theirs: Original, mine: boolean) => {
    revision.current = theirs.revision;
    kept.current = lookOf(theirs);
    if (!mine) {
      past.current = [];
      setLook(kept.current);
    }
    setState({ kind: "saved" });
  };
  return {
    look,
    state,
    change,
    settle: () => {
      group.current = undefined;
    },
    undo: () => {
      const before = past.current.pop();
      if (before) setLook(before);
      group.current = undefined;
    },
    canUndo: past.current.length > 0,
    keepMine: (theirs: Original) => put(theirs, true),
    takeTheirs: (theirs: Original) => put(theirs, false),
  };
}
