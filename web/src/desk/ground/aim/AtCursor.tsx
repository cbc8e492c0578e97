import { percent, size } from "../../../ui/format";
import { useDesk } from "../../context";
import { runAt, spanAt, valueAt, wholePx } from "../../scale";
import ground from "../Ground.module.css";
import classes from "./Aim.module.css";
import { windowAt } from "./windowAt";

/** The cursor's sentence: what holds at this one width. */
export function AtCursor() {
  const { reading, cursor, density } = useDesk();
  const span = spanAt(reading.spans, cursor);
  if (!span) return null;
  const w = valueAt(span.frame_w, cursor) ?? 0;
  const h = valueAt(span.frame_h, cursor) ?? 0;
  const seen = windowAt(span, cursor);
  const across = seen?.w ?? 1;
  const down = seen?.h ?? 1;
  const areas = reading.bands
    .filter((b) => b.kind === "area")
    .map((b) => [b, runAt(b, cursor)] as const);
  const sharp = reading.bands.find((b) => b.kind === "sharp" && b.density === density);
  const needed = valueAt(sharp?.needed, cursor);
  const taken = sharp && runAt({ runs: sharp.taken }, cursor);
  const fares = sharp && runAt(sharp, cursor);
  const held = span.holds.filter((h) => h.first <= cursor && cursor <= h.last);
  return (
    <div className={classes.facts}>
      <div className={ground.facts}>
        <h3>
          At {cursor} px, span {span.letter}
        </h3>
        <p>
          {span.effective.show === "nothing" ? "Nothing shows here. " : `Frame ${size(w, h)}. `}
          {span.effective.show === "colour" && "Only its colour shows. "}
          {span.x0 &&
            (across > 0.999 && down > 0.999
              ? "All of the picture shows"
              : across <= 0.999 && down <= 0.999
                ? `Shows ${percent(across)} of the width and ${percent(down)} of the height`
                : across <= 0.999
                  ? `Shows ${percent(across)} of the width`
                  : `Shows ${percent(down)} of the height`)}
          {held.map((h, i) => (
            <span key={h.name}>
              {i ? ", " : ", held by "}
              <em>{h.name}</em>
              {h.first > span.first || h.last < span.last ? ` from ${h.first} to ${h.last}` : ""}
            </span>
          ))}
          {span.x0 && ". "}
          {areas.map(([band, run]) =>
            run && run.verdict !== "whole" ? (
              <strong key={band.name} data-verdict={run.verdict} className={classes.verdict}>
                {run.verdict === "small"
                  ? `${band.name} is shown too small`
                  : `${band.name} is ${run.verdict}: ${percent(1 - (valueAt(band.curve, cursor) ?? run.worst))} of it is out of view`}
                .{" "}
              </strong>
            ) : null,
          )}
        </p>
      </div>
      {taken && needed !== undefined && (
        <div className={ground.facts}>
          <h3>File at {density}x</h3>
          <p className="num">
            {taken.stem}
            <br />
            needs {wholePx(needed)} · has {taken.width_px} px
            {fares?.verdict === "soft" &&
              ` · soft, ${(valueAt(sharp.curve, cursor) ?? fares.worst).toFixed(2)}×`}
          </p>
        </div>
      )}
    </div>
  );
}
