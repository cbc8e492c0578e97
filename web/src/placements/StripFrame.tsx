import type { StripFrame as Frame, StripScreen as Screen } from "../api/queries";
import { Letter } from "../ui/Letter";
import classes from "./Placements.module.css";

const HEIGHT = 84;
/** The widest that a span is drawn, in heights; what is flatter is drawn lower. */
const WIDEST = 2.8;
/** So much is seen of the slimmest, in px. */
const SLIMMEST = 6;

const sized = (ratio: number, height: number) => ({
  width: Math.min(WIDEST * height, Math.max(SLIMMEST, height * ratio)),
  height: Math.max(SLIMMEST, Math.min(height, (WIDEST * height) / ratio)),
});
const NOTHING = { width: 62 };
const ALL = { x: 0, y: 0, w: 1, h: 1 };
const percent = (share: number) => `${share * 100}%`;

/**
 * What one span shows: the original's preview, moved and scaled so that the window fills the little
 * frame.
 */
export function StripFrame({ frame, height = HEIGHT }: { frame: Frame; height?: number }) {
  const box = frame.show === "nothing" ? { ...NOTHING, height } : sized(frame.frame_ratio, height);
  return (
    <figure className={classes.small}>
      <div
        className={classes.window}
        style={{
          ...box,
          background: frame.thumb || frame.show === "colour" ? frame.colour : undefined,
        }}
      >
        {frame.thumb ? <Picture frame={frame} /> : <Without frame={frame} />}
      </div>
      <Letter of={frame.letter} small />
    </figure>
  );
}

function Picture({ frame }: { frame: Frame }) {
  const { x, y, w, h } = frame.window ?? ALL;
  const place = frame.place ?? ALL;
  return (
    <div
      className={classes.place}
      style={{
        left: percent(place.x),
        top: percent(place.y),
        width: percent(place.w),
        height: percent(place.h),
      }}
    >
      <img
        src={frame.thumb ?? ""}
        alt=""
        loading="lazy"
        style={{
          width: percent(1 / w),
          height: percent(1 / h),
          left: percent(-x / w),
          top: percent(-y / h),
        }}
      />
    </div>
  );
}

const Without = ({ frame }: { frame: Pick<Frame, "show"> }) => (
  <span>{frame.show === "nothing" ? "not shown" : frame.show === "colour" ? "" : "none"}</span>
);

/** All of a placement in one span as visitors see it: its pictures, and its texts as lines. */
export function StripScreen({ screen, height = HEIGHT }: { screen: Screen; height?: number }) {
  const box = screen.show === "nothing" ? { ...NOTHING, height } : sized(screen.box_ratio, height);
  const at = (r: { x: number; y: number; w: number; h: number }) => ({
    left: percent(r.x),
    top: percent(r.y),
    width: percent(r.w),
    height: percent(r.h),
  });
  return (
    <figure className={classes.small}>
      <div
        className={classes.window}
        style={{ ...box, background: screen.show === "nothing" ? undefined : screen.colour }}
      >
        {screen.cells.map((cell, i) => (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: a picture is its place
            key={i}
            className={classes.place}
            style={{
              ...at(cell),
              borderRadius: cell.round ? "50%" : undefined,
              background:
                cell.frame.show === "colour" || cell.frame.thumb ? cell.frame.colour : undefined,
            }}
          >
            {cell.frame.thumb ? <Picture frame={cell.frame} /> : null}
          </div>
        ))}
        {screen.texts.map((text, i) => (
          <div
            // biome-ignore lint/suspicious/noArrayIndexKey: a text is its place
            key={i}
            className={classes.text}
            style={{ ...at(text), background: text.fill ?? undefined }}
          >
            {Array.from({ length: text.lines }, (_, n) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a line is its place
              <i key={n} style={{ background: text.ink }} />
            ))}
          </div>
        ))}
        {screen.show === "nothing" ||
        !screen.cells.some((c) => c.frame.thumb || c.frame.show === "colour") ? (
          <Without frame={screen} />
        ) : null}
      </div>
      <Letter of={screen.letter} small />
    </figure>
  );
}
