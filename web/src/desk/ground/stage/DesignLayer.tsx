/** The design on the stage, unscaled, in the middle of the page; and the spot that is drawn on it. */
import { useState } from "react";
import type { Design, Seen } from "./designs";
import classes from "./Stage.module.css";
import type { Lies } from "./useOverlay";

interface Props {
  design: Design;
  lies: Lies;
  share: number;
  /** The page's width, in CSS px. */
  width: number;
  scale: number;
  /** Where the design's upper edge is on the stage, in CSS px. */
  top: number;
}

const leftOf = (design: Design, width: number) => (width - design.drawn_for) / 2;

export function DesignLayer({ design, lies, share, width, scale, top }: Props) {
  if (lies === "off") return null;
  const left = leftOf(design, width);
  const wiped = lies === "wipe" ? `inset(0 0 0 ${share}%)` : undefined;
  return (
    <img
      className={classes.layer}
      data-lies={lies}
      src={design.url}
      alt=""
      draggable={false}
      style={{
        left: left * scale,
        top: top * scale,
        width: design.drawn_for * scale,
        opacity: lies === "over" || lies === "under" ? share / 100 : 1,
        clipPath: wiped,
      }}
    />
  );
}

interface DrawProps {
  design: Design;
  width: number;
  scale: number;
  top: number;
  done: (seen: Seen) => void;
}

/** The page's edges are met from so many px of the screen. */
const NEAR_SCREEN_PX = 6;

interface Corner {
  x: number;
  y: number;
}

/** A rectangle is drawn by hand, in whole CSS px of the design. */
export function DrawLayer({ design, width, scale, top, done }: DrawProps) {
  const [from, setFrom] = useState<Corner>();
  const [to, setTo] = useState<Corner>();
  const left = leftOf(design, width);
  const at = (e: React.PointerEvent): Corner => {
    const box = e.currentTarget.getBoundingClientRect();
    const x = Math.round((e.clientX - box.left) / scale - left);
    const y = Math.round((e.clientY - box.top) / scale - top);
    // the page's own edges are met from near, unless Shift is held
    const near = e.shiftKey ? 0 : NEAR_SCREEN_PX / scale;
    const end = design.drawn_for;
    return { x: x < near ? 0 : x > end - near ? end : x, y: y < near ? 0 : y };
  };
  const rect = from && to && boxOf(from, to);
  return (
    <div
      className={classes.drawing}
      onPointerDown={(e) => {
        e.currentTarget.setPointerCapture(e.pointerId);
        setFrom(at(e));
        setTo(at(e));
      }}
      onPointerMove={(e) => from && setTo(at(e))}
      onPointerUp={() => {
        setFrom(undefined);
        setTo(undefined);
        if (rect && rect.right - rect.left >= 1 && rect.bottom - rect.top >= 1)
          done({ width: design.drawn_for, viewport_height: null, ...rect });
      }}
    >
      {rect && (
        <i
          style={{
            left: (rect.left + left) * scale,
            top: (rect.top + top) * scale,
            width: (rect.right - rect.left) * scale,
            height: (rect.bottom - rect.top) * scale,
          }}
        >
          <span>
            {rect.right - rect.left} × {rect.bottom - rect.top}
          </span>
        </i>
      )}
    </div>
  );
}

const boxOf = (a: Corner, b: Corner) => ({
  left: Math.min(a.x, b.x),
  right: Math.max(a.x, b.x),
  top: Math.min(a.y, b.y),
  bottom: Math.max(a.y, b.y),
});
