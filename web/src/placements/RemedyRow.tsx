import { Checkbox, Select } from "@mantine/core";
import { Link } from "react-router";
import type { FailingSpan } from "../api/queries";
import { followers } from "../desk/remedy";
import { range } from "../ui/format";
import { Letter } from "../ui/Letter";
import classes from "./Placements.module.css";
import { StripFrame } from "./StripFrame";

interface Props {
  siteId: number;
  remedy: FailingSpan;
  /** The remedy that is taken, by its number in the advice. */
  taken: number | undefined;
  on: boolean;
  tick: (on: boolean) => void;
  choose: (remedy: number) => void;
}

/**
 * A span that fails: what is cut, what it looks like before and after, and which remedy is taken.
 */
export function RemedyRow({ siteId, remedy: r, taken, on, tick, choose }: Props) {
  const works = r.advice.steps.flatMap((s, i) =>
    s.works ? [{ value: String(i), label: s.label ?? "" }] : [],
  );
  const after = taken === undefined ? undefined : r.after[taken];
  const step = taken === undefined ? undefined : r.advice.steps[taken];
  return (
    <div className={classes.remedy} data-off={!on || undefined}>
      <Checkbox
        aria-label={`Apply to ${r.name}, span ${r.advice.span}`}
        checked={on}
        onChange={(e) => tick(e.currentTarget.checked)}
      />
      <div className={classes.name}>
        <strong>
          <Link
            to={`/sites/${siteId}/placements/${r.placement_id}/aim?span=${r.advice.span}&width=${r.first}${r.part ? `&part=${r.part + 1}` : ""}`}
          >
            {r.name}
          </Link>
        </strong>
        <span className={classes.spanOf}>
          <Letter of={r.advice.span} small /> {range(r.first, r.last)}
        </span>
        <ul className={classes.findings}>
          {r.findings.map((f) => (
            <li key={f.sentence}>{f.sentence}</li>
          ))}
        </ul>
      </div>
      <div className={classes.change}>
        <StripFrame frame={r.before} />
        <span aria-hidden="true">→</span>
        {after ? <StripFrame frame={after} /> : <span className="soft">nothing helps</span>}
      </div>
      <div className={classes.which}>
        <Select
          aria-label={`Remedy for ${r.name}, span ${r.advice.span}`}
          data={works}
          value={taken === undefined ? null : String(taken)}
          onChange={(v) => v !== null && choose(Number(v))}
          allowDeselect={false}
          placeholder="none works"
        />
        <span className="soft">
          {step ? `${step.why} ${followers(step)}` : "No remedy helps here."}
        </span>
      </div>
    </div>
  );
}
