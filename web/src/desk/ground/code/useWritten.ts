/** The code of the draft in another kind of output than HTML, which its reading holds. */
import { client, data, type Schemas } from "../../../api/client";
import { type OfDraft, useOfDraft } from "./useOfDraft";

export type Output = "html" | "jsx" | "django" | "json";

/** No answer as long as the files of this draft are not there. */
export function useWritten(output: Output): OfDraft<Schemas["CodeFile"][]> {
  return useOfDraft(output === "html" ? undefined : output, (site_id, draft, signal) =>
    data(
      client.POST("/api/sites/{site_id}/readings/code", {
        params: { path: { site_id } },
        body: { ...draft, output },
        signal,
      }),
    ),
  );
}
