import type { StripFrame as Frame } from "../api/queries";
import { Letter } from "../ui/Letter";
import classes from "./Placements.module.css";

const HEIGHT = 84;

/** What one span shows: the original's preview, moved and scaled so that the window fills the little frame. */
export function StripFrame({ frame, height = HEIGHT }: { frame: Frame; height?: number }) {
  const width = frame.show === "nothing" ? 62 : Math.min(2.8 * height, Math.max(34, height * frame.frame_ratio));
  const { x, y, w, h } = frame.window ?? { x: 0, y: 0, w: 1, h: 1 };
  return (
    <figure className={classes.small}>
      <div
        className={classes.window}
        style={{ width, height, background: frame.show === "colour" ? frame.colour : undefined }}
      >
        {frame.thumb ? (
          <img
            src={frame.thumb}
            alt=""
            loading="lazy"
            style={{
              width: `${100 / w}%`,
              height: `${100 / h}%`,
              left: `${(-x / w) * 100}%`,
              top: `${(-y / h) * 100}%`,
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
