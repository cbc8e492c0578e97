/** The code of the draft in another kind of output than HTML, which its reading holds. */
import { useEffect, useState } from "react";
import type { Schemas } from "../../../api/client";
import { client, data, ProblemError } from "../../../api/client";
import { useWork } from "../../context";

export type Output = "html" | "jsx" | "django" | "json";
type CodeFile = Schemas["CodeFile"];

/** `files` are undefined as long as those of this draft are not there. */
export function useWritten(output: Output): { files?: CodeFile[]; error?: ProblemError } {
  const { site, placementId, handle, pending } = useWork();
  const { draft } = handle;
  const [told, setTold] = useState<{
    of: object;
    output: Output;
    files?: CodeFile[];
    error?: ProblemError;
  }>();
  useEffect(() => {
    if (pending !== "nothing" || output === "html") return;
    const abort = new AbortController();
    const { placement, looks } = draft;
    data(
      client.POST("/api/sites/{site_id}/readings/code", {
        params: { path: { site_id: site.id } },
        body: { placement, placement_id: placementId, looks, output },
        signal: abort.signal,
      }),
    ).then(
      (files) => setTold({ of: draft, output, files }),
      (error) => {
        if (error instanceof ProblemError) setTold({ of: draft, output, error });
      },
    );
    return () => abort.abort();
  }, [site.id, placementId, draft, output, pending]);
  return told?.of === draft && told.output === output ? told : {};
}
