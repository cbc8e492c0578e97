import { Checkbox, Select } from "@mantine/core";
import { Link } from "react-router";
import type { FailingSpan } from "../api/queries";
import { range } from "../ui/format";
import { Letter } from "../ui/Letter";
import classes from "./Placements.module.css";
import { StripFrame } from "./StripFrame";

interface Props {
  siteId: number;
  remedy: FailingSpan;
  step: number | undefined;
  on: boolean;
  tick: (on: boolean) => void;
  choose: (step: number) => void;
}

/** A span that fails: what is cut, what it looks like before and after, and which remedy is taken. */
export function RemedyRow({ siteId, remedy: r, step, on, tick, choose }: Props) {
  const works = r.advice.steps.flatMap((s, i) => (s.works ? [{ value: String(i), label: s.label ?? "" }] : []));
  const after = step === undefined ? undefined : r.after[step];
  const taken = step === undefined ? undefined : r.advice.steps[step];
  return (
    <div className={classes.remedy} data-off={!on || undefined}>
      <Checkbox
        aria-label={`Apply to ${r.name}, span ${r.advice.span}`}
        checked={on}
        onChange={(e) => tick(e.currentTarget.checked)}
      />
      <div className={classes.name}>
        <strong>
          <Link to={`/sites/${siteId}/placements/${r.placement_id}/aim?span=${r.advice.span}&width=${r.first}`}>
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
          value={step === undefined ? null : String(step)}
          onChange={(v) => v !== null && choose(Number(v))}
          allowDeselect={false}
          placeholder="none works"
        />
        <span className="soft">{taken?.why ?? "No step of the advice helps here."}</span>
      </div>
    </div>
  );
}
