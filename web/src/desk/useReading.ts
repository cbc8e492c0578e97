/** The reading of a draft: one question on its way at a time, then the latest; an overtaken answer is never shown. */
import { useEffect, useRef, useState } from "react";
import { client, dataAs, ProblemError } from "../api/client";
import type { Reading, SitePlan } from "../api/queries";
import type { Draft } from "./useDraft";

export function useReading(siteId: number, draft: Draft, plan: SitePlan | undefined, stamp: unknown) {
  const [reading, setReading] = useState<Reading>();
  const [error, setError] = useState<ProblemError>();
  const wanted = useRef({ draft, plan, stamp });
  const abort = useRef<AbortController>(undefined);
  wanted.current = { draft, plan, stamp };
  const going = useRef(false);

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
              body: { placement: asked.draft.placement, looks: asked.draft.looks, site: asked.plan } as never,
              signal: abort.current.signal,
            }),
          );
          setReading(out);
          setError(undefined);
        } catch (e) {
          if (e instanceof DOMException) break;
          setError(e instanceof ProblemError ? e : undefined);
        }
        const next = wanted.current;
        if (next.draft === asked.draft && next.plan === asked.plan && next.stamp === asked.stamp) break;
      }
      going.current = false;
    };
    void ask();
  }, [siteId, draft, plan, stamp]);

  useEffect(() => () => abort.current?.abort(), []);
  return { reading, error };
}
