import type { StripFrame as Frame } from "../api/queries";
import { Letter } from "../ui/Letter";
import classes from "./Placements.module.css";

const HEIGHT = 84;
const ALL = { x: 0, y: 0, w: 1, h: 1 };
const percent = (share: number) => `${share * 100}%`;

/** What one span shows: the original's preview, moved and scaled so that the window fills the little frame. */
export function StripFrame({ frame, height = HEIGHT }: { frame: Frame; height?: number }) {
  const width = frame.show === "nothing" ? 62 : Math.min(2.8 * height, Math.max(34, height * frame.frame_ratio));
  const { x, y, w, h } = frame.window ?? ALL;
  const place = frame.place ?? ALL;
  return (
    <figure className={classes.small}>
      <div
        className={classes.window}
        style={{
          width,
          height,
          background: frame.thumb || frame.show === "colour" ? frame.colour : undefined,
        }}
      >
        {frame.thumb ? (
          <div
            className={classes.place}
            style={{ left: percent(place.x), top: percent(place.y), width: percent(place.w), height: percent(place.h) }}
          >
            <img
              src={frame.thumb}
              alt=""
              loading="lazy"
              style={{ width: percent(1 / w), height: percent(1 / h), left: percent(-x / w), top: percent(-y / h) }}
            />
          </div>
        ) : (
          <span>{frame.show === "nothing" ? "not shown" : frame.show === "colour" ? "" : "none"}</span>
        )}
      </div>
      <Letter of={frame.letter} small />
    </figure>
  );
}
