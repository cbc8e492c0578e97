/** The original as map: focal point, areas, what each span shows, and dimmed what the chosen one hides. */
import { useElementSize } from "@mantine/hooks";
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useRef } from "react";
import type { Look, Original, SpanReading } from "../../../api/queries";
import { DRAG } from "../../../ui/drag";
import { percent } from "../../../ui/format";
import { Letter, spanColour } from "../../../ui/Letter";
import { valueAt } from "../../scale";
import classes from "./Map.module.css";

export interface Edges {
  x0: number;
  x1: number;
  y0: number;
  y1: number;
}

/** What a span shows at a width inside it; for a width outside, all that it shows anywhere. */
export function windowAt(span: SpanReading, width: number): Edges | undefined {
  if (span.first <= width && width <= span.last) {
    const [x0, x1, y0, y1] = [span.x0, span.x1, span.y0, span.y1].map((c) => valueAt(c, width));
    if (x0 !== undefined && x1 !== undefined && y0 !== undefined && y1 !== undefined) return { x0, x1, y0, y1 };
  }
  return span.outline ?? undefined;
}

const box = (e: Edges) => ({
  left: `${e.x0 * 100}%`,
  top: `${e.y0 * 100}%`,
  width: `${(e.x1 - e.x0) * 100}%`,
  height: `${(e.y1 - e.y0) * 100}%`,
});

interface Props {
  original: Original;
  look: Look;
  spans: SpanReading[];
  chosen: SpanReading;
  cursor: number;
  moveFocal: (to: [number, number], group: string) => void;
  settle: () => void;
}

const clamp = (v: number) => Math.min(1, Math.max(0, Math.round(v * 10000) / 10000));

export function PictureMap({ original, look, spans, chosen, cursor, moveFocal, settle }: Props) {
  const { ref, width, height } = useElementSize();
  const picture = useRef<HTMLDivElement>(null);
  const scale = Math.min(width / original.width_px, height / original.height_px);
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
  const seen = windowAt(chosen, cursor);
  return (
    <div className={classes.surround} ref={ref}>
      {width > 0 && (
        <div
          ref={picture}
          className={classes.picture}
          style={{ width: original.width_px * scale, height: original.height_px * scale }}
        >
          <img src={original.preview} alt={original.alt || original.name} draggable={false} />
          {seen && <div className={classes.seen} style={box(seen)} />}
          {look.areas?.map((a) => (
            <div
              key={a.name}
              className={classes.area}
              data-kind={a.kind}
              style={box({ x0: a.rect.x, x1: a.rect.x + a.rect.w, y0: a.rect.y, y1: a.rect.y + a.rect.h })}
            >
              <span>{a.name}</span>
            </div>
          ))}
          {spans.map(
            (s, i) =>
              s.outline && (
                <div
                  key={s.letter}
                  className={classes.outline}
                  data-chosen={s.letter === chosen.letter || undefined}
                  style={{ ...box(s.outline), borderColor: spanColour(s.letter) }}
                >
                  <span className={classes.tag} style={{ left: i * 20 }}>
                    <Letter of={s.letter} />
                  </span>
                </div>
              ),
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
