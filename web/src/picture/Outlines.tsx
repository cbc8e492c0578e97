/** What spans show of the picture: their outlines, and of the chosen one its window, its safe area and its crop. */
import type { SpanReading } from "../api/queries";
import { Letter, spanColour } from "../ui/Letter";
import type { Rect } from "./areas";
import { box } from "./box";
import classes from "./Map.module.css";

interface Props {
  spans: SpanReading[];
  chosen?: SpanReading;
  seen?: Rect;
  crop?: Rect | null;
}

export function Outlines({ spans, chosen, seen, crop }: Props) {
  return (
    <>
      {seen && <div className={classes.seen} style={box(seen)} />}
      {crop && (crop.w < 1 || crop.h < 1) && (
        <div className={classes.uncropped} style={box(crop)} title={`Crop of span ${chosen?.letter}`} />
      )}
      {spans.map(
        (s, i) =>
          s.outline && (
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
      {chosen?.safe && (
        <div
          className={classes.safe}
          style={box(chosen.safe)}
          title={`Safe area of span ${chosen.letter}: in view at every width`}
        />
      )}
    </>
  );
}
