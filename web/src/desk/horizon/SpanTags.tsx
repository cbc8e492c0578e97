/** The spans on the axis: pressed they are chosen, and a picture dropped on one goes into it. */
import { useState } from "react";
import { range } from "../../ui/format";
import { Letter } from "../../ui/Letter";
import { useWork } from "../context";
import classes from "./Horizon.module.css";

export function SpanTags() {
  const { reading, scale, span, choose, bringing } = useWork();
  const [over, setOver] = useState<string>();
  return (
    <div className={classes.tags}>
      {reading.spans.map((s) => (
        <button
          key={s.letter}
          type="button"
          className={classes.tag}
          aria-pressed={s.letter === span.letter}
          data-over={over === s.letter || undefined}
          style={{
            left: scale.percent(s.first),
            width: `${(scale.at(Math.min(s.last + 1, scale.widest)) - scale.at(s.first)) * 100}%`,
          }}
          onClick={() => choose(s.letter)}
          onDragOver={(e) => {
            e.preventDefault();
            setOver(s.letter);
          }}
          onDragLeave={() => setOver(undefined)}
          onDrop={(e) => {
            e.preventDefault();
            setOver(undefined);
            choose(s.letter);
            bringing.bring(s.letter, [...e.dataTransfer.files]);
          }}
          title={s.title || undefined}
        >
          <Letter of={s.letter} />
          <b>{range(s.first, s.last, reading.widest)}</b>
          <span>{s.frame_text}</span>
        </button>
      ))}
    </div>
  );
}
