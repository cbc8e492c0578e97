/** The crop on the map: moved and pulled by mouse and keys; its ratio held, and stopped where it would turn soft. */
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useRef } from "react";
import { stepOn } from "../ui/arrows";
import { DRAG } from "../ui/drag";
import { CORNERS, type Corner, type Rect } from "./areas";
import { box } from "./box";
import { fitted } from "./crop";
import classes from "./Map.module.css";

interface Props {
  rect: Rect;
  /** CSS px of the whole picture as it is drawn here. */
  width: number;
  height: number;
  held: boolean;
  /** The least share of the picture's width that stays sharp; 0 where it may be soft. */
  least: number;
  change: (rect: Rect, group: string) => void;
  settle: () => void;
  stopped: (at: boolean) => void;
}

/** A corner pulled with the ratio held: the opposite corner stays, the larger move decides, never below `least`. */
export function pulledHeld(r: Rect, corner: Corner, dx: number, dy: number, held: boolean, least: number): Rect {
  const sx = corner.includes("e") ? 1 : -1;
  const sy = corner.includes("s") ? 1 : -1;
  const floor = Math.max(0.01, least);
  let w = Math.max(floor, r.w + sx * dx);
  let h = r.h + sy * dy;
  const right = r.x + r.w;
  const bottom = r.y + r.h;
  const roomX = sx > 0 ? 1 - r.x : right;
  const roomY = sy > 0 ? 1 - r.y : bottom;
  if (held) {
    const ratio = r.h / r.w;
    if (Math.abs(dy) > Math.abs(dx)) w = Math.max(floor, h / ratio);
    w = Math.min(w, roomX, roomY / ratio);
    h = w * ratio;
  } else {
    w = Math.min(w, roomX);
    h = Math.min(Math.max(0.01, h), roomY);
  }
  return fitted({ x: sx > 0 ? r.x : right - w, y: sy > 0 ? r.y : bottom - h, w, h });
}

/** Moved as it is: its size does not change by a px. */
export const movedWhole = (r: Rect, dx: number, dy: number): Rect => fitted({ ...r, x: r.x + dx, y: r.y + dy });

export function CropBox({ rect, width, height, held, least, change, settle, stopped }: Props) {
  const start = useRef(rect);
  const put = (next: Rect, group: string) => {
    stopped(least > 0 && next.w <= least + 1e-4 && next.w < 1);
    change(next, group);
  };
  const bind = useDrag(({ args: [corner], first, last, movement: [mx, my], event }) => {
    event.stopPropagation();
    event.preventDefault();
    if (first) start.current = rect;
    const [dx, dy] = [mx / width, my / height];
    put(
      corner ? pulledHeld(start.current, corner as Corner, dx, dy, held, least) : movedWhole(start.current, dx, dy),
      "crop",
    );
    if (last) settle();
  }, DRAG);
  const keys = (e: KeyboardEvent) => {
    const step = stepOn(e);
    if (!step) return;
    const [dx, dy] = step;
    put(e.altKey ? pulledHeld(rect, "se", dx, dy, held, least) : movedWhole(rect, dx, dy), "crop keys");
    e.preventDefault();
    e.stopPropagation();
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a crop is laid on a picture, no native control is like it
    <div
      className={classes.crop}
      style={box(rect)}
      role="group"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it is moved by arrow keys
      tabIndex={0}
      aria-label="Crop. Arrows move it, with Alt they resize it, with Shift ten times as far."
      onKeyDown={keys}
      onKeyUp={settle}
      {...bind(undefined)}
    >
      {CORNERS.map((c) => (
        <i key={c} data-corner={c} {...bind(c)} />
      ))}
    </div>
  );
}
