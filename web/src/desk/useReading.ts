/** The reading of a draft: one question on its way at a time, then the latest; an overtaken answer is never shown. */
import { useEffect, useRef, useState } from "react";
import { client, dataAs, ProblemError } from "../api/client";
import type { Reading, SitePlan } from "../api/queries";
import type { Draft } from "./useDraft";

export function useReading(
  siteId: number,
  placementId: number,
  draft: Draft,
  plan: SitePlan | undefined,
  chosen: string | undefined,
  costs: boolean,
  stamp: unknown,
) {
  const [found, setFound] = useState<{ reading: Reading; of: Draft }>();
  const [error, setError] = useState<ProblemError>();
  const wanted = useRef({ draft, plan, chosen, costs, stamp });
  const abort = useRef<AbortController>(undefined);
  wanted.current = { draft, plan, chosen, costs, stamp };
  const going = useRef(false);
  const prints = useRef(new WeakMap<Draft, Map<string, string>>());

  // biome-ignore lint/correctness/useExhaustiveDependencies: asks again whenever what is to be read has changed
  useEffect(() => {
    if (going.current) return;
    going.current = true;
    const ask = async () => {
      while (true) {
        const asked = wanted.current;
        abort.current = new AbortController();
        try {
          const out = await dataAs<Reading>(
            client.POST("/api/sites/{site_id}/readings", {
              params: { path: { site_id: siteId } },
              body: {
                placement: asked.draft.placement,
                placement_id: placementId,
                looks: asked.draft.looks,
                site: asked.plan,
                chosen: asked.chosen,
                costs: asked.costs,
              } as never,
              signal: abort.current.signal,
            }),
          );
          prints.current.set(asked.draft, new Map(out.spans.map((s) => [s.letter, s.print ?? ""])));
          setFound({ reading: out, of: asked.draft });
          setError(undefined);
        } catch (e) {
          if (e instanceof DOMException) break;
          setError(e instanceof ProblemError ? e : undefined);
        }
        const next = wanted.current;
        if (
          next.draft === asked.draft &&
          next.plan === asked.plan &&
          next.chosen === asked.chosen &&
          next.costs === asked.costs &&
          next.stamp === asked.stamp
        )
          break;
      }
      going.current = false;
    };
    void ask();
  }, [siteId, placementId, draft, plan, chosen, costs, stamp]);

  useEffect(() => () => abort.current?.abort(), []);
  /** The spans that show otherwise than in an earlier draft that was read; undefined where it was not. */
  const changedSince = (before: Draft | undefined): string[] | undefined => {
    const then = before && prints.current.get(before);
    if (!then || !found || found.of !== draft) return undefined;
    return found.reading.spans.filter((s) => then.get(s.letter) !== s.print).map((s) => s.letter);
  };
  return { reading: found?.reading, error, changedSince };
}
