import type { Finding } from "../../api/queries";
import { Letter } from "../../ui/Letter";
import classes from "./Ground.module.css";

/** What is wrong here, where, and the remedy. */
export function Findings({ of }: { of: Finding[] }) {
  return of.map((f) => (
    <div key={`${f.rule} ${f.sentence}`} className={classes.finding}>
      <strong>
        {f.spans.map((s) => (
          <span key={s} style={{ marginRight: 5 }}>
            <Letter of={s} small />
          </span>
        ))}
        {f.sentence}
      </strong>
      <span>{f.remedy}</span>
    </div>
  ));
}
