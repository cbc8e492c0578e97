/** One export run: its pictures, what it was for, who started it, what came of it. */
import { Button, Progress } from "@mantine/core";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { isOpen } from "../api/queries";
import { bytes, plural } from "../ui/format";
import classes from "./Deliveries.module.css";

const WORDS = {
  queued: "waiting for the worker",
  running: "at work",
  stopping: "stopping",
  stopped: "stopped",
  done: "done",
  failed: "failed",
};

export function DeliveryRow({ siteId, run }: { siteId: number; run: Schemas["DeliveryRow"] }) {
  const fresh = run.total - run.reused;
  return (
    <div className={classes.row}>
      <div className={classes.thumbs}>
        {run.thumbs.slice(0, 3).map((src) => (
          <img key={src} src={src} alt="" loading="lazy" />
        ))}
      </div>
      <div className={classes.what}>
        <Link to={`/sites/${siteId}/placements/${run.placement_id}/files`}>
          <span className="soft">{run.page} ›</span> <strong>{run.name}</strong>
        </Link>
        <span>{run.what}</span>
      </div>
      <span data-state={run.state} className={classes.state}>
        {run.waits_for ? "waiting" : WORDS[run.state]}
      </span>
      <div className={classes.came}>
        {isOpen(run.state) ? (
          <>
            <Progress value={(run.done / Math.max(1, run.total)) * 100} aria-label={`${run.done} of ${run.total}`} />
            <span>
              {run.done} of {run.total}, {bytes(run.size_bytes)} so far
            </span>
          </>
        ) : (
          <>
            <strong>{bytes(run.size_bytes)}</strong>
            <span>
              {plural(run.total, "file")}
              {run.reused > 0 && `, ${fresh} new`}
            </span>
          </>
        )}
      </div>
      <div className={classes.when}>
        <time dateTime={run.created}>
          {new Date(run.created).toLocaleString([], { dateStyle: "medium", timeStyle: "short" })}
        </time>
        <span>{run.by && `by ${run.by}`}</span>
      </div>
      {run.state === "done" ? (
        <Button component="a" variant="default" href={`/api/deliveries/${run.id}/zip`}>
          Download zip
        </Button>
      ) : (
        <span className="soft">{run.waits_for || run.message}</span>
      )}
    </div>
  );
}
