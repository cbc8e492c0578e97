import type { Finding } from "../../api/queries";
import { Letter } from "../../ui/Letter";
import { useWork } from "../context";
import classes from "./Ground.module.css";

/** What is wrong here, where, and the remedy; pressed, each leads to the span, part and step where it is mended. */
export function Findings({ of }: { of: Finding[] }) {
  const { lead } = useWork();
  return of.map((f) => (
    <button type="button" key={`${f.part} ${f.rule} ${f.sentence}`} className={classes.finding} onClick={() => lead(f)}>
      <strong>
        {f.spans.map((s) => (
          <span key={s} style={{ marginRight: 5 }}>
            <Letter of={s} small />
          </span>
        ))}
        {f.sentence}
      </strong>
      <span>{f.remedy}</span>
    </button>
  ));
}
