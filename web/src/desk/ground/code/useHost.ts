/** What the host of the site is given of the draft, where it takes no markup. */
import { client, data, type Schemas } from "../../../api/client";
import { type OfDraft, useOfDraft } from "./useOfDraft";

export type HostReading = Schemas["HostReading"];

/** No answer as long as what is told is not of this draft. */
export function useHost(): OfDraft<HostReading> {
  return useOfDraft("host", (site_id, draft, signal) =>
    data(
      client.POST("/api/sites/{site_id}/readings/host", {
        params: { path: { site_id } },
        body: draft,
        signal,
      }),
    ),
  );
}
