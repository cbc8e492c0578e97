/** Breakpoints: posts on the axis, which can be dragged, moved by keys, added and removed. */

import { useDrag } from "@use-gesture/react";
import { stepAlong } from "../../ui/arrows";
import { DRAG } from "../../ui/drag";
import { Tip } from "../../ui/Tip";
import type { Scale } from "../scale";
import classes from "./Horizon.module.css";

interface PostProps {
  index: number;
  breakpoints: number[];
  scale: Scale;
  letter: string;
  widthAt: (x: number) => number;
  drag: (b: number[]) => void;
  keep: (b: number[], soon?: boolean) => void;
}

export function Post({ index, breakpoints, scale, widthAt, drag, keep, letter }: PostProps) {
  const value = breakpoints[index] as number;
  const least = (breakpoints[index - 1] ?? scale.narrowest - 1) + 1;
  const most = (breakpoints[index + 1] ?? scale.widest) - 1;
  const moved = (to: number) =>
    breakpoints.map((b, i) => (i === index ? Math.min(most, Math.max(least, to)) : b));
  const bind = useDrag(({ xy: [x], last, tap, event }) => {
    event.stopPropagation();
    if (tap) return;
    const next = moved(widthAt(x) - 1);
    last ? keep(next) : drag(next);
  }, DRAG);
  return (
    <Tip label={`${letter} ends at ${value} px. Drag to move, Delete removes it.`} openDelay={500}>
      <div
        className={classes.post}
        style={{ left: scale.percent(value + 1) }}
        role="slider"
        tabIndex={0}
        aria-label={`Breakpoint: last width of span ${letter}`}
        aria-valuemin={least}
        aria-valuemax={most}
        aria-valuenow={value}
        onKeyDown={(e) => {
          const by = stepAlong(e);
          if (by) keep(moved(value + by), true);
          else if (e.key === "Delete" || e.key === "Backspace")
            keep(breakpoints.filter((_, i) => i !== index));
          else return;
          e.preventDefault();
        }}
        {...bind()}
      >
        <i />
      </div>
    </Tip>
  );
}

export function AddPost({
  breakpoints,
  cursor,
  scale,
  keep,
}: {
  breakpoints: number[];
  cursor: number;
  scale: Scale;
  keep: (b: number[]) => void;
}) {
  const taken = breakpoints.includes(cursor) || cursor >= scale.widest;
  return (
    <Tip
      label={`A breakpoint at the cursor: a new span begins at ${cursor + 1} px; every width keeps what it has.`}
    >
      <button
        type="button"
        className={classes.add}
        disabled={taken}
        onClick={() => keep([...breakpoints, cursor].sort((a, b) => a - b))}
      >
        split here
      </button>
    </Tip>
  );
}
