/** The cursor: dragged, moved by keys, or typed. */

import type { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useState } from "react";
import { stepAlong } from "../../ui/arrows";
import { typed } from "../../ui/format";
import { useDesk } from "../context";
import { spanAt } from "../scale";
import classes from "./Horizon.module.css";

export function Cursor({ bind }: { bind: ReturnType<typeof useDrag> }) {
  const { cursor, setCursor, scale, reading } = useDesk();
  const [text, setText] = useState<string>();
  const here = spanAt(reading.spans, cursor);
  const step = (e: KeyboardEvent) => {
    const by = stepAlong(e);
    const to = by ? cursor + by : { Home: scale.narrowest, End: scale.widest }[e.key];
    if (to === undefined) return;
    e.preventDefault();
    setCursor(to);
  };
  const commit = () => {
    const width = typed(text ?? "");
    if (width !== undefined) setCursor(width);
    setText(undefined);
  };
  return (
    <div className={classes.cursor} style={{ left: scale.percent(cursor) }}>
      <div
        className={classes.grip}
        role="slider"
        tabIndex={0}
        aria-label="Cursor: viewport width"
        aria-valuemin={scale.narrowest}
        aria-valuemax={scale.widest}
        aria-valuenow={cursor}
        aria-valuetext={`${cursor} px, span ${here?.letter}`}
        onKeyDown={step}
        {...bind()}
      />
      <input
        className={classes.typed}
        aria-label="Type a viewport width"
        inputMode="numeric"
        value={text ?? String(cursor)}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") commit();
          if (e.key === "Escape") setText(undefined);
        }}
      />
    </div>
  );
}
