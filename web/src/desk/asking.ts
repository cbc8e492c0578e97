/** The questions about a draft: all of its reading, or only what moves. */
import { client, dataAs, ProblemError } from "../api/client";
import type { Moving, SitePlan, WholeReading } from "../api/queries";
import { type Conditions, isUsual } from "./conditions";
import type { Draft } from "./draft";

/** What is read, and whether it is on the move. */
export interface Asked {
  siteId: number;
  placementId: number;
  draft: Draft;
  plan: SitePlan | undefined;
  part: number;
  chosen: string | undefined;
  costs: boolean;
  words: boolean;
  /** Files and code of all items, where there are many. */
  every: boolean;
  /** What a scrollbar takes of the page, in CSS px. */
  scrollbar: number;
  conditions: Conditions;
  /** Another value: something that the server knows has changed. */
  stamp: unknown;
  /**
   * The revision in which the draft is stored as it stands; undefined for one that has been
   * changed.
   */
  stored: number | undefined;
  moves: boolean;
}

const FIELDS = [
  "draft",
  "plan",
  "part",
  "chosen",
  "costs",
  "words",
  "every",
  "scrollbar",
  "conditions",
  "stamp",
] as const;
export const isSame = (a: Asked, b: Asked | undefined, fields: readonly (keyof Asked)[] = FIELDS) =>
  b !== undefined && fields.every((f) => a[f] === b[f]);

const bodyOf = (a: Asked) => ({
  placement: a.draft.placement,
  placement_id: a.placementId,
  looks: a.draft.looks,
  site: a.plan,
  scrollbar_px: a.scrollbar,
  conditions: a.conditions,
});

/** As it is stored: to be had from what comes first. */
const askStored = (a: Asked, revision: number, signal: AbortSignal) =>
  dataAs<WholeReading>(
    client.GET("/api/placements/{placement_id}/reading", {
      params: {
        path: { placement_id: a.placementId },
        query: {
          part: a.part,
          chosen: a.chosen,
          words: a.words,
          every: a.every,
          scrollbar_px: a.scrollbar,
          revision,
        },
      },
      signal,
    }),
  );

export async function askAll(a: Asked, signal: AbortSignal) {
  if (a.stored !== undefined && !a.plan && !a.costs && isUsual(a.conditions)) {
    try {
      return await askStored(a, a.stored, signal);
    } catch (e) {
      // somebody has saved it anew: what stands here is read
      if (!(e instanceof ProblemError) || e.status !== 409) throw e;
    }
  }
  return askDraft(a, signal);
}

const askDraft = (a: Asked, signal: AbortSignal) =>
  dataAs<WholeReading>(
    client.POST("/api/sites/{site_id}/readings", {
      params: { path: { site_id: a.siteId } },
      body: {
        ...bodyOf(a),
        part: a.part,
        chosen: a.chosen,
        costs: a.costs,
        words: a.words,
        every: a.every,
      },
      signal,
    }),
  );

export const askMoving = (a: Asked, signal: AbortSignal) =>
  dataAs<Moving>(
    client.POST("/api/sites/{site_id}/readings/moving", {
      params: { path: { site_id: a.siteId } },
      body: { ...bodyOf(a), part: a.part, chosen: a.chosen },
      signal,
    }),
  );
