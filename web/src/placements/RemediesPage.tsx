/**
 * All that fails in the site, by page, with the gentlest remedy for each; applied one by one or all
 * at once.
 */
import { Button } from "@mantine/core";
import { useState } from "react";
import { Link, useParams } from "react-router";
import type { Schemas } from "../api/client";
import { type FailingSpan, useApplyRemedies, useRemedies, useUndoRemedies } from "../api/queries";
import { plural } from "../ui/format";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import classes from "./Placements.module.css";
import { RemedyRow } from "./RemedyRow";

const keyOf = (r: FailingSpan) => `${r.placement_id} ${r.part} ${r.advice.span}`;

export function RemediesPage() {
  const siteId = Number(useParams().siteId);
  const remedies = useRemedies(siteId);
  const apply = useApplyRemedies(siteId);
  const undo = useUndoRemedies(siteId);
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const [taken, setTaken] = useState<Record<string, number>>({});
  const all = remedies.data ?? [];
  const remedyOf = (r: FailingSpan) => taken[keyOf(r)] ?? r.advice.best ?? undefined;
  const chosen = all.filter((r) => !left.has(keyOf(r)) && remedyOf(r) !== undefined);
  const choice = (r: FailingSpan): Schemas["Choice"] => ({
    placement_id: r.placement_id,
    revision: r.revision,
    part: r.part,
    span: r.advice.span,
    remedy: remedyOf(r) ?? 0,
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
            Apply{" "}
            {chosen.length === all.length
              ? `all ${all.length || ""}`
              : `${chosen.length} of ${all.length}`}
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
                <RemedyRow
                  key={keyOf(r)}
                  siteId={siteId}
                  remedy={r}
                  taken={remedyOf(r)}
                  on={!left.has(keyOf(r))}
                  tick={(on) => {
                    const next = new Set(left);
                    on ? next.delete(keyOf(r)) : next.add(keyOf(r));
                    setLeft(next);
                  }}
                  choose={(n) => setTaken({ ...taken, [keyOf(r)]: n })}
                />
              ))}
          </section>
        ))}
      </div>
    </>
  );
}
