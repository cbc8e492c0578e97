/**
 * The widths of a ladder as the designer sets them: from the first change on they are their own.
 */
import { useCallback, useRef } from "react";
import type { Ladder } from "../api/queries";
import { useWork } from "./context";
import { partOf } from "./draft";
import { RUNGS } from "./useDraft";

export function useRungs(ladder: Ladder) {
  const { handle } = useWork();
  const { ladders } = partOf(handle.draft, handle.part);
  const own = ladders[ladder.letter];
  const widths = own ?? ladder.rungs.map((r) => r.width_px);
  const latest = useRef(widths);
  latest.current = widths;

  const put = useCallback(
    (next: number[] | undefined, group?: string) => {
      const { [ladder.letter]: _, ...rest } = ladders;
      handle.setPart({ ladders: next?.length ? { ...rest, [ladder.letter]: next } : rest }, group);
    },
    [handle, ladders, ladder.letter],
  );
  /** A width in the place of another, or none. */
  const replace = useCallback(
    (from: number, to: number | undefined) => {
      const others = latest.current.filter((w) => w !== from);
      put(
        to === undefined ? others : [...new Set([...others, to])].sort((a, b) => a - b),
        to === undefined ? undefined : `${RUNGS}${ladder.letter}`,
      );
    },
    [put, ladder.letter],
  );
  const add = useCallback(
    (width: number) => put([...new Set([...latest.current, width])].sort((a, b) => a - b)),
    [put],
  );
  return { widths, isOwn: own !== undefined, replace, add, put };
}
