/** The placement as another kind. What the new one begins with is worked out by the server; one step, undone as any. */
import { useState } from "react";
import { client, dataAs, ProblemError } from "../api/client";
import type { PlacementBody } from "../api/queries";
import { useWork } from "./context";
import { withPlacement } from "./draft";

export function useKind() {
  const { site, placementId, handle } = useWork();
  const [busy, setBusy] = useState(false);
  const [error, setError] = useState<string>();
  const begin = async (kind: string) => {
    setBusy(true);
    setError(undefined);
    const { placement, looks } = handle.draft;
    try {
      const begun = await dataAs<PlacementBody>(
        client.POST("/api/sites/{site_id}/kinds/{kind}", {
          params: { path: { site_id: site.id, kind } },
          body: { placement, looks, placement_id: placementId },
        }),
      );
      handle.change((d) => withPlacement(d, begun));
    } catch (e) {
      setError(e instanceof ProblemError ? e.message : "No answer. Try again.");
    }
    setBusy(false);
  };
  return { begin, busy, refused: error && <p role="alert">{error}</p> };
}
