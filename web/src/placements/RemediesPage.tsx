/** All that fails in the site, by page, with the gentlest remedy for each; applied one by one or all at once. */
import { Button, Checkbox, Select } from "@mantine/core";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../api/client";
import { type FailingSpan, useApplyRemedies, useRemedies, useUndoRemedies } from "../api/queries";
import { plural, range } from "../ui/format";
import { Letter } from "../ui/Letter";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import classes from "./Placements.module.css";
import { StripFrame } from "./StripFrame";

const keyOf = (r: FailingSpan) => `${r.placement_id} ${r.advice.span}`;

export function RemediesPage() {
  const siteId = Number(useParams().siteId);
  const remedies = useRemedies(siteId);
  const apply = useApplyRemedies(siteId);
  const undo = useUndoRemedies(siteId);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [steps, setSteps] = useState<Record<string, number>>({});
  const all = remedies.data ?? [];
  const stepOf = (r: FailingSpan) => steps[keyOf(r)] ?? r.advice.best ?? undefined;
  const chosen = all.filter((r) => !left.has(keyOf(r)) && stepOf(r) !== undefined);
  const choice = (r: FailingSpan): Schemas["Choice"] => ({
    placement_id: r.placement_id,
    revision: r.revision,
    part: r.part,
    span: r.advice.span,
    step: stepOf(r) ?? 0,
  });
  const done = apply.data?.filter((o) => o.applied) ?? [];
  const pages = [...new Set(all.map((r) => r.page))];
  return (
    <>
      <Bar
        title="Remedies"
        right={
          <Button
            disabled={!chosen.length}
            loading={apply.isPending}
            onClick={() => {
              undo.reset();
              apply.mutate(chosen.map(choice));
            }}
          >
            Apply {chosen.length === all.length ? `all ${all.length || ""}` : `${chosen.length} of ${all.length}`}
          </Button>
        }
      >
        <Link to={`/sites/${siteId}/placements`}>all placements</Link>
      </Bar>
      <div className={classes.pages}>
        {(apply.data ?? undo.data) && (
          <div className={classes.outcome} role="status">
            <span>{(undo.data ?? apply.data)?.map((o) => o.sentence).join(" ")}</span>
            {!undo.data && done.length > 0 && (
              <Button
                variant="default"
                loading={undo.isPending}
                onClick={() => undo.mutate(done.map((o) => [o.placement_id, o.revision]))}
              >
                Undo {plural(done.length, "placement")}
              </Button>
            )}
          </div>
        )}
        {(apply.error ?? undo.error) && <Failure error={apply.error ?? undo.error} />}
        {remedies.isError && <Failure error={remedies.error} again={() => remedies.refetch()} />}
        {remedies.isPending && <Rows n={4} height={110} />}
        {remedies.data?.length === 0 && (
          <Empty title="Every keep area is whole at every width of every placement.">
            <Link to={`/sites/${siteId}/placements`}>To the placements</Link>
          </Empty>
        )}
        {pages.map((page) => (
          <section key={page} className={classes.page} aria-label={page}>
            <header>
              <h2>{page}</h2>
            </header>
            {all
              .filter((r) => r.page === page)
              .map((r) => (
                <One
                  key={keyOf(r)}
                  siteId={siteId}
                  remedy={r}
                  step={stepOf(r)}
                  on={!left.has(keyOf(r))}
                  tick={(on) => {
                    const next = new Set(left);
                    on ? next.delete(keyOf(r)) : next.add(keyOf(r));
                    setLeft(next);
                  }}
                  choose={(n) => setSteps({ ...steps, [keyOf(r)]: n })}
                />
              ))}
          </section>
        ))}
      </div>
    </>
  );
}

interface OneProps {
  siteId: number;
  remedy: FailingSpan;
  step: number | undefined;
  on: boolean;
  tick: (on: boolean) => void;
  choose: (step: number) => void;
}

function One({ siteId, remedy: r, step, on, tick, choose }: OneProps) {
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
          aria-label={`FailingSpan for ${r.name}, span ${r.advice.span}`}
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
