/** What the host of the site is given of the draft, where it takes no markup. */
import { useEffect, useState } from "react";
import type { Schemas } from "../../../api/client";
import { client, data, ProblemError } from "../../../api/client";
import { useWork } from "../../context";

export type HostReading = Schemas["HostReading"];

interface Told {
  of: object;
  reading?: HostReading;
  error?: ProblemError;
}

/** Nothing as long as what is told is not of this draft. */
export function useHost(): { reading?: HostReading; error?: ProblemError } {
  const { site, placementId, handle, pending } = useWork();
  const { draft } = handle;
  const [told, setTold] = useState<Told>();
  useEffect(() => {
    if (pending !== "nothing") return;
    const abort = new AbortController();
    const { placement, looks } = draft;
    data(
      client.POST("/api/sites/{site_id}/readings/host", {
        params: { path: { site_id: site.id } },
        body: { placement, placement_id: placementId, looks },
        signal: abort.signal,
      }),
    ).then(
      (reading) => setTold({ of: draft, reading }),
      (error) => {
        if (error instanceof ProblemError) setTold({ of: draft, error });
      },
    );
    return () => abort.abort();
  }, [site.id, placementId, draft, pending]);
  return told?.of === draft ? told : {};
}
