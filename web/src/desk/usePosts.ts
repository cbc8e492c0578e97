/**
 * Breakpoints as they are dragged and kept. One change of the site is on its way at a time; what is
 * moved meanwhile goes after it.
 */
import { useCallback, useEffect, useRef, useState } from "react";
import { client, dataAs } from "../api/client";
import { type Placement, type Site, type SitePlan, useChangeSite } from "../api/queries";
import type { DraftHandle } from "./useDraft";

/** Posts that are moved by keys are kept this long after the last key. */
const QUIET_MS = 350;

const equal = (a: readonly number[], b: readonly number[]) =>
  a.length === b.length && a.every((v, i) => v === b[i]);

/** Keeps breakpoints of the site: another number of them carries all placements over. */
function useCarrying(site: Site, placementId: number, handle: DraftHandle) {
  const { mutateAsync } = useChangeSite(site.id);
  /**
   * While placements are carried over nothing is changed on the desk: it would be meant for letters
   * that are no more.
   */
  const [carrying, setCarrying] = useState(false);
  const latest = useRef(site);
  const draft = useRef(handle);
  draft.current = handle;
  if (site.revision > latest.current.revision) latest.current = site;
  /** What waits here is saved before, and what came of it is taken over after. */
  const keepNow = useCallback(
    async (breakpoints: number[]) => {
      const before = latest.current;
      const others = breakpoints.length !== (before.plan.breakpoints?.length ?? 0);
      if (others) setCarrying(true);
      if (others && !(await draft.current.save()))
        throw new Error(
          "The post was left as it is, since changes of this placement are not saved yet. Try again when they are.",
        );
      latest.current = await mutateAsync({
        name: before.name,
        revision: before.revision,
        plan: { ...before.plan, breakpoints },
      });
      if (others)
        draft.current.takeTheirs(
          await dataAs<Placement>(
            client.GET("/api/placements/{placement_id}", {
              params: { path: { placement_id: placementId } },
            }),
          ),
        );
    },
    [mutateAsync, placementId],
  );
  return { latest, keepNow, carrying, carried: useCallback(() => setCarrying(false), []) };
}

export function usePosts(site: Site, placementId: number, handle: DraftHandle) {
  const { latest, keepNow, carrying, carried } = useCarrying(site, placementId, handle);
  const [dragged, setDragged] = useState<SitePlan>();
  const [error, setError] = useState<string>();
  const wanted = useRef<number[]>(undefined);
  const going = useRef(false);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);

  const work = useCallback(async () => {
    if (going.current) return;
    going.current = true;
    const focused = document.activeElement;
    try {
      while (wanted.current) {
        const breakpoints = wanted.current;
        wanted.current = undefined;
        if (!equal(breakpoints, latest.current.plan.breakpoints ?? [])) await keepNow(breakpoints);
      }
      setError(undefined);
    } catch (e) {
      wanted.current = undefined;
      setError(e instanceof Error ? e.message : String(e));
    }
    going.current = false;
    carried();
    setDragged(undefined);
    // what rests is not focused; whoever works by keyboard goes on where they were
    requestAnimationFrame(
      () => focused instanceof HTMLElement && focused.isConnected && focused.focus(),
    );
  }, [keepNow, latest, carried]);

  const drag = useCallback(
    (breakpoints: number[]) => setDragged({ ...latest.current.plan, breakpoints } as SitePlan),
    [latest],
  );
  /** `soon`: more may follow in a moment, as from a key that is held. */
  const keep = useCallback(
    (breakpoints: number[], soon = false) => {
      drag(breakpoints);
      clearTimeout(timer.current);
      wanted.current = breakpoints;
      if (soon) timer.current = setTimeout(work, QUIET_MS);
      else void work();
    },
    [drag, work],
  );
  // leaving the desk keeps what was moved last
  useEffect(
    () => () => {
      clearTimeout(timer.current);
      if (wanted.current) void work();
    },
    [work],
  );
  return { dragged, drag, keep, carrying, error };
}
