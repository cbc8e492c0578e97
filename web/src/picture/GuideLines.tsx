/** Lines over what shows of a picture, at fractions of its sides. */
import type { Rect } from "./areas";
import { box } from "./box";
import classes from "./Map.module.css";

export function GuideLines({ rect, at }: { rect: Rect; at: number[] }) {
  if (!at.length) return null;
  return (
    <div className={classes.guides} style={box(rect)} aria-hidden="true">
      {at.map((f) => (
        <i key={`x${f}`} data-axis="x" style={{ left: `${f * 100}%` }} />
      ))}
      {at.map((f) => (
        <i key={`y${f}`} data-axis="y" style={{ top: `${f * 100}%` }} />
      ))}
    </div>
  );
}
