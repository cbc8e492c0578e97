/**
 * Which file screens of the chosen density take at every width. Where one ends it can be dragged,
 * moved by keys, or removed.
 */

import { useDrag } from "@use-gesture/react";
import type { Ladder } from "../../api/queries";
import { stepAlong } from "../../ui/arrows";
import { DRAG } from "../../ui/drag";
import { Tip } from "../../ui/Tip";
import { useDesk } from "../context";
import { valueAt, wholePx } from "../scale";
import { useRungs } from "../useRungs";
import classes from "./Horizon.module.css";

interface Props {
  ladders: Ladder[];
  widthAt: (x: number) => number;
}

export function LadderRow({ ladders, widthAt }: Props) {
  const { scale, density, reading } = useDesk();
  const starts = new Set(reading.spans.map((s) => s.first));
  return (
    <div className={classes.ladder}>
      {ladders.map((ladder) => {
        const runs = ladder.taken.find((t) => t.density === density)?.runs ?? [];
        return runs.map((run, i) => {
          // where a span begins another frame does; elsewhere a file ends because the frame has
          // outgrown it
          const ends = runs[i + 1]?.first === run.last + 1 && !starts.has(run.last + 1);
          return (
            <div key={`${ladder.letter} ${run.first}`}>
              <div
                className={classes.rung}
                style={scale.run(run)}
                title={`${run.width_px} px wide, from ${run.first} to ${run.last} px at ${density}x`}
              >
                {run.width_px}
              </div>
              {ends && (
                <RungEnd ladder={ladder} width={run.width_px} at={run.last} widthAt={widthAt} />
              )}
            </div>
          );
        });
      })}
    </div>
  );
}

interface EndProps {
  ladder: Ladder;
  /** The rung's width in px, and the last viewport width at which it is taken. */
  width: number;
  at: number;
  widthAt: Props["widthAt"];
}

function RungEnd({ ladder, width, at, widthAt }: EndProps) {
  const { scale, density, reading, handle } = useDesk();
  const { replace } = useRungs(ladder);
  const needed = reading.bands.find((b) => b.kind === "sharp" && b.density === density)?.needed;
  const reach = (viewport: number) => wholePx(valueAt(needed, scale.clamp(viewport)) ?? width);
  const bind = useDrag(({ xy: [x], memo = width, last, tap, event }) => {
    event.stopPropagation();
    if (tap) return memo;
    const to = reach(widthAt(x) - 1);
    replace(memo, to);
    if (last) handle.settle();
    return to;
  }, DRAG);
  return (
    <Tip
      label={`${width} px suffices up to ${at} px at ${density}x. Drag to move, Delete removes it.`}
      openDelay={500}
    >
      <div
        className={classes.rungEnd}
        style={{ left: scale.percent(at + 1) }}
        role="slider"
        tabIndex={0}
        aria-label={`File of ${width} px: the last viewport width that takes it`}
        aria-valuemin={scale.narrowest}
        aria-valuemax={scale.widest}
        aria-valuenow={at}
        onKeyDown={(e) => {
          const by = stepAlong(e);
          if (by) replace(width, reach(at + by));
          else if (e.key === "Delete" || e.key === "Backspace") replace(width, undefined);
          else return;
          e.preventDefault();
        }}
        {...bind()}
      />
    </Tip>
  );
}
