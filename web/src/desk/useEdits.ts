/**
 * Changes in which a rule says what comes with them: the server works them out, and they are one
 * step as any other.
 */
import { type RefObject, useCallback, useRef, useState } from "react";
import { client, dataAs, ProblemError } from "../api/client";
import type { Edit, Look, PlacementBody } from "../api/queries";
import type { Draft } from "./draft";

type Change = (fn: (draft: Draft) => Draft, group?: string) => void;

/**
 * `now` is the draft as it stands. Edits are made one after the other; one that cannot be had
 * changes nothing.
 */
export function useEdits(siteId: number, now: RefObject<Draft>, change: Change) {
  const last = useRef<Promise<unknown>>(Promise.resolve());
  const [refused, setRefused] = useState<string>();
  /** How many are asked for and not made yet. */
  const [open, setOpen] = useState(0);
  /** Those that were asked for before the last taking back are not made any more. */
  const round = useRef(0);
  const edit = useCallback(
    (asked: Edit, looks: Record<number, Look> = {}): Promise<PlacementBody | undefined> => {
      const mine = round.current;
      const make = async () => {
        if (mine !== round.current) return undefined;
        setRefused(undefined);
        for (;;) {
          const from = now.current;
          const placement = await dataAs<PlacementBody>(
            client.POST("/api/sites/{site_id}/edits", {
              params: { path: { site_id: siteId } },
              body: { placement: from.placement, looks: { ...from.looks, ...looks }, edit: asked },
            }),
          );
          if (mine !== round.current) return undefined;
          // what has been done meanwhile is not lost
          if (now.current !== from) continue;
          change((d) => ({ placement, looks: { ...d.looks, ...looks } }));
          return placement;
        }
      };
      setOpen((n) => n + 1);
      const made = last.current
        .then(make)
        .catch((e) => {
          setRefused(
            e instanceof ProblemError ? e.message : "No answer: nothing was changed. Try again.",
          );
          return undefined;
        })
        .finally(() => setOpen((n) => n - 1));
      last.current = made;
      return made;
    },
    [siteId, now, change],
  );
  const takeBack = useCallback(() => {
    round.current++;
  }, []);
  return {
    edit,
    busy: open > 0,
    takeBack,
    refused,
    forget: useCallback(() => setRefused(undefined), []),
  };
}
