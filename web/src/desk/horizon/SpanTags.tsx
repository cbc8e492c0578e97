/** The spans on the axis: pressed they are chosen, and a picture dropped on one goes into it. */
import { memo } from "react";
import type { SpanReading } from "../../api/queries";
import { range } from "../../ui/format";
import { Letter } from "../../ui/Letter";
import { useDropTarget } from "../../ui/useDropTarget";
import { useSeen, useWork } from "../context";
import classes from "./Horizon.module.css";

export const SpanTags = memo(function SpanTags() {
  const { reading } = useWork();
  return (
    <div className={classes.tags}>
      {reading.spans.map((s) => (
        <SpanTag key={s.letter} of={s} />
      ))}
      <Lit />
    </div>
  );
});

/** The widths that something pointed at is for. */
function Lit() {
  const { scale } = useWork();
  const { lit } = useSeen();
  return lit.map((run) => (
    <i
      key={`${run.first} ${run.last}`}
      className={classes.lit}
      style={scale.run(run)}
      aria-hidden="true"
    />
  ));
}

function SpanTag({ of }: { of: SpanReading }) {
  const { reading, scale, span, choose, bringing } = useWork();
  const drop = useDropTarget((files) => {
    choose(of.letter);
    bringing.bring(of.letter, files);
  });
  return (
    <button
      type="button"
      className={classes.tag}
      aria-pressed={of.letter === span.letter}
      style={scale.run(of)}
      onClick={() => choose(of.letter)}
      title={of.title || undefined}
      {...drop}
    >
      <Letter of={of.letter} />
      <b>{range(of.first, of.last, reading.widest)}</b>
      <span>{of.frame_text}</span>
    </button>
  );
}
