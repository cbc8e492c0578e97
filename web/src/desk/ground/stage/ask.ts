/** The questions of the stage: what can be pulled at a viewport, and what a pull sets. */
import { client, dataAs, type Schemas, type Told } from "../../../api/client";
import type { SitePlan } from "../../../api/queries";
import type { Draft } from "../../draft";

export type StageReading = Told<Schemas["StageReading"]>;
export type HandleReading = Schemas["HandleReading"];
export type Pulled = Schemas["Pulled"];
export type PulledTo = Schemas["PulledTo"];

/** A draft at one viewport. */
export interface Held {
  siteId: number;
  placementId: number;
  draft: Draft;
  plan: SitePlan | undefined;
  part: number;
  letter: string;
  width: number;
  height: number;
  scrollbar: number;
  /** How far down the box the fold is, in CSS px. */
  fold: number;
  /** The edges of what was drawn on the design, from the page's left and the box's top. */
  marks: { x: number[]; y: number[] };
}

const bodyOf = (h: Held) => ({
  placement: h.draft.placement,
  placement_id: h.placementId,
  looks: h.draft.looks,
  site: h.plan,
  held: {
    part: h.part,
    letter: h.letter,
    width: h.width,
    height: h.height,
    scrollbar_px: h.scrollbar,
    lines: { ...h.marks, fold: h.fold },
  },
});

export const askStage = (h: Held, signal: AbortSignal) =>
  dataAs<StageReading>(
    client.POST("/api/sites/{site_id}/readings/stage", {
      params: { path: { site_id: h.siteId } },
      body: bodyOf(h),
      signal,
    }),
  );

export const askPull = (h: Held, pull: PulledTo) =>
  dataAs<Pulled>(
    client.POST("/api/sites/{site_id}/readings/pull", {
      params: { path: { site_id: h.siteId } },
      body: { ...bodyOf(h), pull },
    }),
  );
