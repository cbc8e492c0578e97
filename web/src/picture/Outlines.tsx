/**
 * What spans show of the picture: their outlines, and of the chosen one its window, its safe area
 * and its crop.
 */
import type { SpanReading } from "../api/queries";
import { Letter, spanColour } from "../ui/Letter";
import type { Rect } from "./areas";
import { box } from "./box";
import { tagsOf } from "./labels";
import classes from "./Map.module.css";

interface Props {
  spans: SpanReading[];
  chosen?: SpanReading;
  crop?: Rect | null;
  /** Of the picture as it is drawn, in CSS px. */
  width: number;
  height: number;
}

export function Outlines({ spans, chosen, crop, width, height }: Props) {
  const drawn = spans.flatMap((s) => (s.outline ? [{ letter: s.letter, outline: s.outline }] : []));
  const tags = tagsOf(
    drawn.map((s) => s.outline),
    width,
    height,
  );
  return (
    <>
      {crop && (crop.w < 1 || crop.h < 1) && (
        <div
          className={classes.uncropped}
          style={box(crop)}
          title={`Crop of span ${chosen?.letter}`}
        />
      )}
      {drawn.map((s) => (
        <div
          key={s.letter}
          className={classes.outline}
          data-chosen={s.letter === chosen?.letter || undefined}
          style={{ ...box(s.outline), borderColor: spanColour(s.letter) }}
        />
      ))}
      {drawn.map((s, i) => (
        <span key={s.letter} className={classes.tag} style={tags[i]}>
          <Letter of={s.letter} />
        </span>
      ))}
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

/** What shows of the picture, the rest dimmed. */
export const Seen = ({ rect }: { rect: Rect }) => (
  <div className={classes.seen} style={box(rect)} />
);
