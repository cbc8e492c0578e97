/** The original as map: focal point, areas, what each span shows, and dimmed what the chosen one hides. */
import { useElementSize } from "@mantine/hooks";
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useRef, useState } from "react";
import type { Look, Original, SpanReading } from "../api/queries";
import { UNCROPPED } from "../desk/ground/aim/CropField";
import { valueAt } from "../desk/scale";
import { DRAG } from "../ui/drag";
import { percent } from "../ui/format";
import { Letter, spanColour } from "../ui/Letter";
import { AreaBox } from "./AreaBox";
import { type Area, added, between, changed, duplicated, type Rect, removed } from "./areas";
import { CropBox } from "./CropBox";
import { labelsOf } from "./labels";
import classes from "./Map.module.css";
import type { Suggestion } from "./Suggest";

/** What a span shows at a width inside it; for a width outside, all that it shows anywhere. */
export function windowAt(span: SpanReading, width: number): Rect | undefined {
  if (span.first <= width && width <= span.last) {
    const [x0, x1, y0, y1] = [span.x0, span.x1, span.y0, span.y1].map((c) => valueAt(c, width));
    if (x0 !== undefined && x1 !== undefined && y0 !== undefined && y1 !== undefined)
      return { x: x0, y: y0, w: x1 - x0, h: y1 - y0 };
  }
  return span.outline ?? undefined;
}

const box = (r: Rect) => ({
  left: `${r.x * 100}%`,
  top: `${r.y * 100}%`,
  width: `${r.w * 100}%`,
  height: `${r.h * 100}%`,
});

export interface MapProps {
  original: Original;
  look: Look;
  spans: SpanReading[];
  /** Without one, the original is looked at by itself. */
  chosen?: SpanReading;
  cursor: number;
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
    held: boolean;
    least: number;
    change: (rect: Rect, group: string) => void;
    stopped: (at: boolean) => void;
  };
  /** In view at every width of all spans that show this original. */
  overall?: Rect | null;
  suggestion?: Suggestion;
  /** The names of the areas that matter in the chosen span. */
  matter?: readonly string[];
}

const clamp = (v: number) => Math.min(1, Math.max(0, Math.round(v * 10000) / 10000));

export function PictureMap({
  original,
  look,
  spans,
  chosen,
  cursor,
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
  const areas = look.areas ?? [];
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
  const [fx, fy] = look.focal;
  const bind = useDrag(({ xy: [x, y], last, event }) => {
    event.preventDefault();
    const at = picture.current?.getBoundingClientRect();
    if (!at) return;
    moveFocal([clamp((x - at.left) / at.width), clamp((y - at.top) / at.height)], "focal");
    if (last) settle();
  }, DRAG);
  const nudge = (e: KeyboardEvent) => {
    const by = e.shiftKey ? 0.05 : 0.005;
    const step = { ArrowLeft: [-by, 0], ArrowRight: [by, 0], ArrowUp: [0, -by], ArrowDown: [0, by] }[e.key];
    if (!step) return;
    e.preventDefault();
    moveFocal([clamp(fx + (step[0] ?? 0)), clamp(fy + (step[1] ?? 0))], "focal keys");
  };
  const seen = chosen && windowAt(chosen, cursor);
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
          {seen && !cropping && <div className={classes.seen} style={box(seen)} />}
          {crop && !cropping && (crop.w < 1 || crop.h < 1) && (
            <div className={classes.uncropped} style={box(crop)} title={`Crop of span ${chosen?.letter}`} />
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
          {spans.map(
            (s, i) =>
              s.outline &&
              !cropping && (
                <div
                  key={s.letter}
                  className={classes.outline}
                  data-chosen={s.letter === chosen?.letter || undefined}
                  style={{ ...box(s.outline), borderColor: spanColour(s.letter) }}
                >
                  <span className={classes.tag} style={{ left: i * 20 }}>
                    <Letter of={s.letter} />
                  </span>
                </div>
              ),
          )}
          {chosen?.safe && !cropping && (
            <div
              className={classes.safe}
              style={box(chosen.safe)}
              title={`Safe area of span ${chosen.letter}: in view at every width`}
            />
          )}
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
              style={{ left: `${suggestion.focal[0] * 100}%`, top: `${suggestion.focal[1] * 100}%` }}
            />
          )}
          {cropping && (
            <CropBox
              rect={crop ?? UNCROPPED}
              width={original.width_px * scale}
              height={original.height_px * scale}
              held={cropping.held}
              least={cropping.least}
              change={cropping.change}
              stopped={cropping.stopped}
              settle={settle}
            />
          )}
          <div
            className={classes.focal}
            style={{ left: `${fx * 100}%`, top: `${fy * 100}%` }}
            role="slider"
            tabIndex={0}
            aria-label="Focal point"
            aria-valuenow={Math.round(fx * 100)}
            aria-valuetext={`${percent(fx)} across, ${percent(fy)} down. Arrow keys move it, with Shift ten times as far.`}
            onKeyDown={nudge}
            onKeyUp={settle}
            {...bind()}
          />
        </div>
      )}
    </div>
  );
}
