/** The focal point on the map: dragged, or moved with the arrow keys. */
import { useDrag } from "@use-gesture/react";
import type { KeyboardEvent, RefObject } from "react";
import { stepOn } from "../ui/arrows";
import { DRAG } from "../ui/drag";
import { percent } from "../ui/format";
import classes from "./Map.module.css";

interface Props {
  /** In fractions of the picture. */
  at: readonly [number, number];
  picture: RefObject<HTMLElement | null>;
  move: (to: [number, number], group: string) => void;
  settle: () => void;
}

const clamp = (v: number) => Math.min(1, Math.max(0, Math.round(v * 10000) / 10000));

export function FocalPoint({ at: [fx, fy], picture, move, settle }: Props) {
  const bind = useDrag(({ xy: [x, y], last, event }) => {
    event.preventDefault();
    const on = picture.current?.getBoundingClientRect();
    if (!on) return;
    move([clamp((x - on.left) / on.width), clamp((y - on.top) / on.height)], "focal");
    if (last) settle();
  }, DRAG);
  const nudge = (e: KeyboardEvent) => {
    const step = stepOn(e);
    if (!step) return;
    e.preventDefault();
    move([clamp(fx + step[0]), clamp(fy + step[1])], "focal keys");
  };
  return (
    <div
      className={classes.focal}
      style={{ left: `${fx * 100}%`, top: `${fy * 100}%` }}
      role="slider"
      tabIndex={0}
      aria-label="Focal point"
      aria-valuenow={Math.round(fx * 100)}
      aria-valuetext={`${percent(fx)} across, ${percent(fy)} down. Arrow keys move it, with Shift ten times as far.`}
      onKeyDown={nudge}
      onKeyUp={settle}
      {...bind()}
    />
  );
}
