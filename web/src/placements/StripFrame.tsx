import type { StripFrame as Frame } from "../api/queries";
import { Letter } from "../ui/Letter";
import classes from "./Placements.module.css";

const STRIP_HEIGHT = 84;

/** What one span shows: the original's preview, moved and scaled so that the window fills the little frame. */
export function StripFrame({ frame }: { frame: Frame }) {
  const width = frame.show === "nothing" ? 62 : Math.min(230, Math.max(34, STRIP_HEIGHT * frame.frame_ratio));
  const [x0, x1, y0, y1] = [frame.x0 ?? 0, frame.x1 ?? 1, frame.y0 ?? 0, frame.y1 ?? 1];
  return (
    <figure className={classes.small}>
      <div
        className={classes.window}
        style={{ width, height: STRIP_HEIGHT, background: frame.show === "colour" ? frame.colour : undefined }}
      >
        {frame.thumb ? (
          <img
            src={frame.thumb}
            alt=""
            loading="lazy"
            style={{
              width: `${100 / (x1 - x0)}%`,
              height: `${100 / (y1 - y0)}%`,
              left: `${(-x0 / (x1 - x0)) * 100}%`,
              top: `${(-y0 / (y1 - y0)) * 100}%`,
            }}
          />
        ) : (
          <span>{frame.show === "nothing" ? "not shown" : frame.show === "colour" ? "" : "none"}</span>
        )}
      </div>
      <Letter of={frame.letter} small />
    </figure>
  );
}
