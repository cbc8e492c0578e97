/** An answer to what is asked of the draft beside its reading, once nothing is under way. */
import { useEffect, useRef, useState } from "react";
import { ProblemError, type Schemas } from "../../../api/client";
import { useWork } from "../../context";

type Body = Pick<Schemas["Draft"], "placement" | "placement_id" | "looks">;

/** `answer` and `error` are of this very draft and this question, or not there. */
export interface OfDraft<T> {
  answer?: T;
  error?: ProblemError;
}

/** `what` tells questions apart; none: nothing is asked. */
export function useOfDraft<T>(
  what: string | undefined,
  ask: (site: number, draft: Body, signal: AbortSignal) => Promise<T>,
): OfDraft<T> {
  const { site, placementId, handle, pending } = useWork();
  const { draft } = handle;
  const [told, setTold] = useState<OfDraft<T> & { of: object; what: string }>();
  const asks = useRef(ask);
  asks.current = ask;
  useEffect(() => {
    if (pending !== "nothing" || what === undefined) return;
    const abort = new AbortController();
    const { placement, looks } = draft;
    asks.current(site.id, { placement, placement_id: placementId, looks }, abort.signal).then(
      (answer) => setTold({ of: draft, what, answer }),
      (error) => {
        if (error instanceof ProblemError) setTold({ of: draft, what, error });
      },
    );
    return () => abort.abort();
  }, [site.id, placementId, draft, what, pending]);
  return told?.of === draft && told.what === what ? told : {};
}
