/** Export runs of the site, the latest first. */
import { Button, Progress } from "@mantine/core";
import { Link, useParams } from "react-router";
import { isOpen, useDeliveries } from "../api/queries";
import { bytes, plural } from "../ui/format";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import classes from "./Deliveries.module.css";

const WORDS = {
  queued: "waiting for the worker",
  running: "at work",
  stopping: "stopping",
  stopped: "stopped",
  done: "done",
  failed: "failed",
};

export function DeliveriesPage() {
  const siteId = Number(useParams().siteId);
  const runs = useDeliveries(siteId);
  return (
    <>
      <Bar title="Deliveries" />
      <div className={classes.list}>
        {runs.isPending && <Rows />}
        {runs.isError && <Failure error={runs.error} again={() => runs.refetch()} />}
        {runs.data?.length === 0 && (
          <Empty title="Nothing exported yet.">
            <span>Open a placement and press Export in Files.</span>
            <Link to={`/sites/${siteId}/placements`}>To the placements</Link>
          </Empty>
        )}
        {runs.data?.map((d) => (
          <div key={d.id} className={classes.row}>
            <Link to={`/sites/${siteId}/placements/${d.placement_id}/files`}>
              <span className="soft">{d.page} ›</span> <strong>{d.name}</strong>
            </Link>
            <span data-state={d.state} className={classes.state}>
              {d.waits_for ? "waiting" : WORDS[d.state]}
            </span>
            <span>
              {isOpen(d.state) ? (
                <Progress value={(d.done / Math.max(1, d.total)) * 100} aria-label={`${d.done} of ${d.total}`} />
              ) : (
                `${plural(d.total, "file")}, ${d.reused ? `${d.total - d.reused} new, ` : ""}${bytes(d.size_bytes)}`
              )}
            </span>
            <time dateTime={d.created}>
              {new Date(d.created).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}
            </time>
            {d.state === "done" ? (
              <Button component="a" variant="default" href={`/api/deliveries/${d.id}/zip`}>
                Download zip
              </Button>
            ) : (
              <span className="soft">{d.waits_for || d.message}</span>
            )}
          </div>
        ))}
      </div>
    </>
  );
}
