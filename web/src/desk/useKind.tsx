/**
 * The placement as another kind. What the new one begins with is worked out by the server; one
 * step, undone as any.
 */
import { useState } from "react";
import { client, dataAs, ProblemError } from "../api/client";
import type { PlacementBody } from "../api/queries";
import { useWork } from "./context";
import { type Draft, withPlacement } from "./draft";

/** A placement as another kind, as the server begins it. */
export const begun = (siteId: number, kind: string, body: Draft & { placementId?: number }) =>
  dataAs<PlacementBody>(
    client.POST("/api/sites/{site_id}/kinds/{kind}", {
      params: { path: { site_id: siteId, kind } },
      body: { placement: body.placement, looks: body.looks, placement_id: body.placementId },
    }),
  );

export function useKind() {
  const { site, placementId, handle } = useWork();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string>();
  const begin = async (kind: string) => {
    setBusy(true);
    setError(undefined);
    try {
      const placement = await begun(site.id, kind, { ...handle.draft, placementId });
      handle.change((d) => withPlacement(d, placement));
    } catch (e) {
      setError(e instanceof ProblemError ? e.message : "No answer. Try again.");
    }
    setBusy(false);
  };
  return { begin, busy, refused: error && <p role="alert">{error}</p> };
}
