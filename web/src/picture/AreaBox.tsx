/**
 * One area on the map: moved and resized by mouse, nudged, resized, duplicated and removed by keys.
 */
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useRef } from "react";
import { stepOn } from "../ui/arrows";
import { DRAG } from "../ui/drag";
import { type Area, CORNERS, type Corner, moved, pulled } from "./areas";
import { box } from "./box";
import type { Label } from "./labels";
import classes from "./Map.module.css";

interface Props {
  area: Area;
  /** It does not matter in the span that is looked at. */
  gone?: boolean;
  /** CSS px of the whole picture as it is drawn here. */
  width: number;
  height: number;
  /** Where its name stands on the picture. */
  label: Label | undefined;
  change: (rect: Area["rect"], group: string) => void;
  remove: () => void;
  duplicate: () => void;
  settle: () => void;
}

export function AreaBox({
  area,
  gone,
  width,
  height,
  label,
  change,
  remove,
  duplicate,
  settle,
}: Props) {
  const start = useRef(area.rect);
  const group = `area ${area.name}`;
  const bind = useDrag(({ args: [corner], first, last, movement: [mx, my], event }) => {
    event.stopPropagation();
    if (first) start.current = area.rect;
    const [dx, dy] = [mx / width, my / height];
    change(
      corner ? pulled(start.current, corner as Corner, dx, dy) : moved(start.current, dx, dy),
      group,
    );
    if (last) settle();
  }, DRAG);
  const keys = (e: KeyboardEvent) => {
    const step = stepOn(e);
    if (step) {
      const [dx, dy] = step;
      change(
        e.altKey ? pulled(area.rect, "se", dx, dy) : moved(area.rect, dx, dy),
        `${group} keys`,
      );
    } else if (e.key === "Delete" || e.key === "Backspace") remove();
    else if (e.key === "d" || e.key === "D") duplicate();
    else return;
    e.preventDefault();
    e.stopPropagation();
  };
  const r = area.rect;
  return (
    // biome-ignore lint/a11y/useSemanticElements: an area is laid on a picture, no native control is like it
    <div
      className={classes.area}
      data-kind={area.kind}
      data-gone={gone || undefined}
      data-lettering={area.lettering || undefined}
      style={box(r)}
      role="group"
      // biome-ignore lint/a11y/noNoninteractiveTabindex: it is moved by arrow keys
      tabIndex={0}
      aria-label={`${area.kind === "quiet" ? "Quiet area" : "Keep area"} ${area.name}. Arrows move it, with Alt they resize it, D duplicates, Delete removes.`}
      onKeyDown={keys}
      onKeyUp={settle}
      {...bind(undefined)}
    >
      {label && (
        <span
          style={{
            left: label.left - r.x * width,
            top: label.top - r.y * height,
            maxWidth: label.width,
          }}
        >
          {area.name}
        </span>
      )}
      {CORNERS.map((c) => (
        <i key={c} data-corner={c} {...bind(c)} />
      ))}
    </div>
  );
}
