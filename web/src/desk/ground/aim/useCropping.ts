/** What a crop in hand is held to: a ratio, and the least width that stays sharp. */
import { useState } from "react";
import type { Original } from "../../../api/queries";
import { useWork } from "../../context";

/** The ratio of the frame, that of the crop as it is, or any. */
export type Lock = "frame" | "crop" | "free";

export interface Cropping {
  on: boolean;
  lock: Lock;
  maySoft: boolean;
  /** The last move would have made it soft. */
  stopped: boolean;
}

export function useCropping() {
  const [cropping, set] = useState<Cropping>({
    on: false,
    lock: "frame",
    maySoft: false,
    stopped: false,
  });
  const change = (values: Partial<Cropping>) =>
    set((c) =>
      Object.keys(values).every((k) => c[k as keyof Cropping] === values[k as keyof Cropping])
        ? c
        : { ...c, ...values },
    );
  return { cropping, change };
}

export type InHand = ReturnType<typeof useCropping>;

const NOTHING = { w: 0, h: 0 };

/** Shares are of the original. */
export function useLimits({ lock, maySoft }: Cropping, original: Original | undefined) {
  const { span, reading } = useWork();
  const facts = reading.detail?.letter === span.letter ? reading.detail.crop : undefined;
  if (!facts || !original) return { facts, ratio: undefined, least: NOTHING, density: undefined };
  const held = lock === "crop" ? undefined : facts.held;
  const { stop } = held ?? facts;
  const px = held ? held.ratio : facts.width_px / facts.height_px;
  return {
    facts,
    /** The height over the width. */
    ratio: lock === "free" ? undefined : original.width_px / original.height_px / px,
    /** The least sides; 0 where it may be soft. */
    least: maySoft
      ? NOTHING
      : {
          w: Math.min(1, stop.width_px / original.width_px),
          h: Math.min(1, stop.height_px / original.height_px),
        },
    /** What it is stopped for. */
    density: stop.density,
  };
}
