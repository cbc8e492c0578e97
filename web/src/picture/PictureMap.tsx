/**
 * The original as map: focal point, areas, what each span shows, and dimmed what the chosen one
 * hides.
 */
import { useElementSize } from "@mantine/hooks";
import { useDrag } from "@use-gesture/react";
import { type ReactNode, useRef, useState } from "react";
import type { Look, Original, SpanReading } from "../api/queries";
import { DRAG } from "../ui/drag";
import { AreaBox } from "./AreaBox";
import { type Area, added, between, changed, duplicated, type Rect, removed } from "./areas";
import { box } from "./box";
import { CropBox, type Sides } from "./CropBox";
import { UNCROPPED } from "./crop";
import { FocalPoint } from "./FocalPoint";
import { labelsOf } from "./labels";
import classes from "./Map.module.css";
import { Outlines } from "./Outlines";
import type { Suggestion } from "./Suggest";

export interface MapProps {
  original: Original;
  look: Look;
  spans: SpanReading[];
  /** Without one, the original is looked at by itself. */
  chosen?: SpanReading;
  /** What the chosen span shows at the cursor's width: drawn by itself, since the cursor moves. */
  seen?: ReactNode;
  moveFocal: (to: [number, number], group: string) => void;
  setAreas: (areas: Area[], group?: string) => void;
  settle: () => void;
  /** Draw the next rectangle as an area of this kind. */
  drawing?: "keep" | "quiet";
  drawn?: () => void;
  /** How much larger than fitting the picture is drawn; beyond 1 it scrolls. */
  zoom?: number;
  /** The crop of the chosen span; with `cropping` it is in hand. */
  crop?: Rect | null;
  cropping?: {
    ratio: number | undefined;
    least: Sides;
    change: (rect: Rect, group: string) => void;
    stopped: (at: boolean) => void;
  };
  /** In view at every width of all spans that show this original. */
  overall?: Rect | null;
  suggestion?: Suggestion;
  /** The names of the areas that matter in the chosen span. */
  matter?: readonly string[];
}

export function PictureMap({
  original,
  look,
  spans,
  chosen,
  seen,
  moveFocal,
  setAreas,
  settle,
  drawing,
  drawn,
  zoom = 1,
  crop,
  cropping,
  overall,
  suggestion,
  matter,
}: MapProps) {
  const { ref, width, height } = useElementSize();
  const picture = useRef<HTMLDivElement>(null);
  const scale = Math.min(width / original.width_px, height / original.height_px) * zoom;
  const areas = look.areas;
  const [sketch, setSketch] = useState<Area["rect"]>();
  const draw = useDrag(({ initial: [xa, ya], xy: [xb, yb], last, tap, event }) => {
    if (!drawing) return;
    event.preventDefault();
    const at = picture.current?.getBoundingClientRect();
    if (!at) return;
    const rect = between(
      (xa - at.left) / at.width,
      (ya - at.top) / at.height,
      (xb - at.left) / at.width,
      (yb - at.top) / at.height,
    );
    setSketch(last ? undefined : rect);
    if (last && !tap) {
      setAreas(added(areas, drawing, rect));
      drawn?.();
    }
  }, DRAG);
  const labels = labelsOf(areas, original.width_px * scale, original.height_px * scale);
  return (
    <div className={classes.surround} data-zoomed={zoom > 1 || undefined} ref={ref}>
      {width > 0 && (
        <div
          ref={picture}
          className={classes.picture}
          data-drawing={drawing}
          data-cropping={cropping ? true : undefined}
          {...draw()}
          style={{ width: original.width_px * scale, height: original.height_px * scale }}
        >
          <img
            src={zoom > 1 ? original.large : original.preview}
            alt={original.alt || original.name}
            draggable={false}
          />
          {!cropping && seen}
          {!cropping && (
            <Outlines
              spans={spans}
              chosen={chosen}
              crop={crop}
              width={original.width_px * scale}
              height={original.height_px * scale}
            />
          )}
          {areas.map((a, i) => (
            <AreaBox
              // biome-ignore lint/suspicious/noArrayIndexKey: an area is its place in the order
              key={i}
              area={a}
              gone={matter !== undefined && a.kind !== "quiet" && !matter.includes(a.name)}
              width={original.width_px * scale}
              height={original.height_px * scale}
              label={labels[i]}
              change={(rect, group) => setAreas(changed(areas, i, { rect }), group)}
              remove={() => setAreas(removed(areas, i))}
              duplicate={() => setAreas(duplicated(areas, i))}
              settle={settle}
            />
          ))}
          {sketch && <div className={classes.sketch} data-kind={drawing} style={box(sketch)} />}
          {overall && (
            <div className={classes.overall} style={box(overall)}>
              <span className={classes.overallTag}>safe in all spans</span>
            </div>
          )}
          {suggestion?.areas.map((r) => (
            <div key={`${r.x} ${r.y}`} className={classes.suggested} style={box(r)} />
          ))}
          {suggestion && (
            <div
              className={classes.suggestedFocal}
              style={{
                left: `${suggestion.focal[0] * 100}%`,
                top: `${suggestion.focal[1] * 100}%`,
              }}
            />
          )}
          {cropping && (
            <CropBox
              rect={crop ?? UNCROPPED}
              width={original.width_px * scale}
              height={original.height_px * scale}
              ratio={cropping.ratio}
              least={cropping.least}
              change={cropping.change}
              stopped={cropping.stopped}
              settle={settle}
            />
          )}
          <FocalPoint at={look.focal} picture={picture} move={moveFocal} settle={settle} />
        </div>
      )}
    </div>
  );
}
