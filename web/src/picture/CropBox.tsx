/**
 * The crop on the map: drawn, moved and pulled by mouse and keys; its ratio held, and stopped where
 * it would turn soft.
 */
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
  /** The height over the width that is held, both as shares of the picture; undefined: any. */
  ratio: number | undefined;
  /** The least shares of the picture's sides that stay sharp; 0 where it may be soft. */
  least: Sides;
  change: (rect: Rect, group: string) => void;
  settle: () => void;
  stopped: (at: boolean) => void;
}

/** Shares of the picture's width and height. */
export interface Sides {
  w: number;
  h: number;
}

/**
 * A corner pulled: the opposite corner stays, and no side is below its `least`. `ratio` is the
 * height over the width that is held, both as shares of the picture; the larger move decides.
 */
export function pulled(
  r: Rect,
  corner: Corner,
  dx: number,
  dy: number,
  ratio: number | undefined,
  least: Sides,
): Rect {
  const sx = corner.includes("e") ? 1 : -1;
  const sy = corner.includes("s") ? 1 : -1;
  const floor = Math.max(0.01, least.w);
  let w = Math.max(floor, r.w + sx * dx);
  let h = r.h + sy * dy;
  const right = r.x + r.w;
  const bottom = r.y + r.h;
  const roomX = sx > 0 ? 1 - r.x : right;
  const roomY = sy > 0 ? 1 - r.y : bottom;
  if (ratio) {
    if (Math.abs(dy) > Math.abs(dx)) w = Math.max(floor, h / ratio);
    w = Math.min(w, roomX, roomY / ratio);
    h = w * ratio;
  } else {
    w = Math.min(w, roomX);
    h = Math.min(Math.max(0.01, least.h, h), roomY);
  }
  return fitted({ x: sx > 0 ? r.x : right - w, y: sy > 0 ? r.y : bottom - h, w, h });
}

/** A new crop, drawn from one point of the picture to another. */
export function drawn(
  [xa, ya]: readonly [number, number],
  [xb, yb]: readonly [number, number],
  ratio: number | undefined,
  least: Sides,
): Rect {
  const corner = `${yb < ya ? "n" : "s"}${xb < xa ? "w" : "e"}` as Corner;
  return pulled({ x: xa, y: ya, w: 0, h: 0 }, corner, xb - xa, yb - ya, ratio, least);
}

/** Moved as it is: its size does not change by a px. */
export const movedWhole = (r: Rect, dx: number, dy: number): Rect =>
  fitted({ ...r, x: r.x + dx, y: r.y + dy });

export function CropBox({ rect, width, height, ratio, least, change, settle, stopped }: Props) {
  const start = useRef(rect);
  const put = (next: Rect, group: string) => {
    const isLeast = (side: "w" | "h") =>
      least[side] > 0 && next[side] <= least[side] + 1e-4 && next[side] < 1;
    stopped(isLeast("w") || (!ratio && isLeast("h")));
    change(next, group);
  };
  /** Where a new one began, as shares of the picture, while it is drawn. */
  const from = useRef<[number, number]>(undefined);
  const surface = useRef<HTMLDivElement>(null);
  const bind = useDrag(
    ({ args: [what], first, last, tap, initial: [x, y], movement: [mx, my], event }) => {
      event.stopPropagation();
      event.preventDefault();
      if (first) {
        start.current = rect;
        const at = surface.current?.getBoundingClientRect();
        from.current = at && [(x - at.left) / at.width, (y - at.top) / at.height];
      }
      const [dx, dy] = [mx / width, my / height];
      if (what === "new") {
        // a press alone leaves the crop that is there
        if (from.current && !tap && Math.hypot(mx, my) > 4) {
          const [fx, fy] = from.current;
          put(drawn([fx, fy], [fx + dx, fy + dy], ratio, least), "crop");
        }
      } else
        put(
          what
            ? pulled(start.current, what as Corner, dx, dy, ratio, least)
            : movedWhole(start.current, dx, dy),
          "crop",
        );
      if (last) settle();
    },
    DRAG,
  );
  const keys = (e: KeyboardEvent) => {
    const step = stepOn(e);
    if (!step) return;
    const [dx, dy] = step;
    put(
      e.altKey ? pulled(rect, "se", dx, dy, ratio, least) : movedWhole(rect, dx, dy),
      "crop keys",
    );
    e.preventDefault();
    e.stopPropagation();
  };
  const isWhole = rect.w >= 1 && rect.h >= 1;
  return (
    <>
      <div ref={surface} className={classes.sheet} {...bind("new")} />
      {/* biome-ignore lint/a11y/useSemanticElements: a crop is laid on a picture, no native control is like it */}
      <div
        className={classes.crop}
        style={box(rect)}
        data-whole={isWhole || undefined}
        role="group"
        // biome-ignore lint/a11y/noNoninteractiveTabindex: it is moved by arrow keys
        tabIndex={0}
        aria-label="Crop. Arrows move it, with Alt they resize it, with Shift ten times as far."
        onKeyDown={keys}
        onKeyUp={settle}
        // there is nowhere to move the whole picture to: a drag on it draws
        {...bind(isWhole ? "new" : undefined)}
      >
        {CORNERS.map((c) => (
          <i key={c} data-corner={c} {...bind(c)} />
        ))}
      </div>
    </>
  );
}
