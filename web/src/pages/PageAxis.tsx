/** The axis of widths with what is true of the whole page at each of them. */
import { useDrag } from "@use-gesture/react";
import { useRef } from "react";
import type { PageReading } from "../api/pages";
import { BandRow } from "../desk/horizon/BandRow";
import { type Scale, spanAt } from "../desk/scale";
import { stepAlong } from "../ui/arrows";
import { DRAG } from "../ui/drag";
import { bytes } from "../ui/format";
import { Letter } from "../ui/Letter";
import classes from "./Pages.module.css";

interface Props {
  reading: PageReading;
  scale: Scale;
  cursor: number;
  setCursor: (width: number) => void;
}

export function PageAxis({ reading, scale, cursor, setCursor }: Props) {
  const axis = useRef<HTMLDivElement>(null);
  const bind = useDrag(({ xy: [x] }) => {
    const box = axis.current?.getBoundingClientRect();
    if (box) setCursor(scale.width(Math.min(1, Math.max(0, (x - box.left) / box.width))));
  }, DRAG);
  return (
    <section className={classes.axis} aria-label="The page at every width">
      <div className={classes.names}>
        {reading.bands.map((b) => (
          <div key={b.name} data-kind={b.kind}>
            {b.name}
            {b.name.startsWith("Weight") && (
              <span className="soft"> budget {bytes(reading.budget_bytes)}</span>
            )}
          </div>
        ))}
      </div>
      <div className={classes.widths} ref={axis} {...bind()}>
        <div className={classes.spans}>
          {reading.spans.map((s) => (
            <span
              key={s.letter}
              style={scale.run(s)}
              data-here={s === spanAt(reading.spans, cursor) || undefined}
            >
              <Letter of={s.letter} /> {s.first}–{s.last}
            </span>
          ))}
        </div>
        {reading.bands.map((b) => (
          <BandRow
            key={b.name}
            band={b}
            scale={scale}
            budget={reading.budget_bytes}
            cursor={cursor}
          />
        ))}
        <div
          className={classes.cursor}
          role="slider"
          tabIndex={0}
          aria-label="Cursor: viewport width"
          aria-valuemin={scale.narrowest}
          aria-valuemax={scale.widest}
          aria-valuenow={cursor}
          style={{ left: scale.percent(cursor) }}
          onKeyDown={(e) => {
            const by = stepAlong(e);
            if (!by) return;
            e.preventDefault();
            setCursor(scale.clamp(cursor + by));
          }}
        >
          <b>{cursor}</b>
        </div>
      </div>
    </section>
  );
}
