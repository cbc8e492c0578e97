import { Letter } from "../../../ui/Letter";
import { useWork } from "../../context";
import classes from "./Frame.module.css";

/** How the frame's width comes about at the ends of the chosen span, and how its row adds up. */
export function WidthSums() {
  const { span } = useWork();
  // a width that is said as it is needs no sum
  const sums = span.sums.filter((s) => s.text.includes("="));
  if (!sums.length && !span.row) return null;
  return (
    <dl className={classes.sums} aria-label={`How the width in span ${span.letter} comes about`}>
      {sums.map((s) => (
        <div key={s.at}>
          <dt>
            <Letter of={span.letter} /> at {s.at}
          </dt>
          <dd>{s.text}</dd>
        </div>
      ))}
      {span.row && (
        <div>
          <dt>
            <Letter of={span.letter} /> row
          </dt>
          <dd>{span.row}</dd>
        </div>
      )}
    </dl>
  );
}
