/**
 * One export run: its pictures, what it was for, who started it, what came of it, what changed
 * since the one before.
 */
import { Button, Progress } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { Link } from "react-router";
import type { Schemas } from "../api/client";
import { isOpen, useTurnDelivery } from "../api/deliveries";
import { bytes, plural, timeLeft } from "../ui/format";
import { Changes } from "./Changes";
import classes from "./Deliveries.module.css";

type Run = Schemas["ListedDelivery"];

const WORDS = {
  queued: "waiting for the worker",
  running: "at work",
  stopping: "stopping",
  stopped: "stopped",
  done: "done",
  failed: "failed",
};
const SCOPES = { site: "whole site", page: "page", placement: "" };

export function DeliveryRow({ siteId, run }: { siteId: number; run: Run }) {
  const turn = useTurnDelivery(siteId);
  const [opened, { toggle }] = useDisclosure();
  const fresh = run.total - run.reused;
  return (
    <div className={classes.run}>
      <div className={classes.row}>
        <div className={classes.thumbs}>
          {run.thumbs.slice(0, 4).map((src) => (
            <img key={src} src={src} alt="" loading="lazy" />
          ))}
        </div>
        <div className={classes.what}>
          {run.placement_id ? (
            <Link to={`/sites/${siteId}/placements/${run.placement_id}/files`}>
              <span className="soft">{run.page} ›</span> <strong>{run.name}</strong>
            </Link>
          ) : (
            <span>
              <strong>{run.name}</strong> <span className="soft">{SCOPES[run.scope]}</span>
            </span>
          )}
          <span>{run.what}</span>
        </div>
        <span data-state={run.state} className={classes.state}>
          {run.waits_for ? "waiting" : WORDS[run.state]}
        </span>
        <div className={classes.came}>
          {isOpen(run.state) ? (
            <>
              <Progress
                value={(run.done / Math.max(1, run.total)) * 100}
                aria-label={`${run.done} of ${run.total}`}
              />
              <span>
                {run.done} of {run.total}, {bytes(run.size_bytes)} so far
                {run.seconds_left != null && `, ${timeLeft(run.seconds_left)}`}
              </span>
            </>
          ) : (
            <>
              <strong>{bytes(run.size_bytes)}</strong>
              <span>
                {plural(run.handed, "file")}
                {run.reused > 0 && `, ${fresh} made for it`}
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
        <div className={classes.acts}>
          {run.state === "done" && (
            <Button component="a" variant="default" href={`/api/deliveries/${run.id}/zip`}>
              Download zip
            </Button>
          )}
          {isOpen(run.state) && run.state !== "stopping" && (
            <Button variant="default" onClick={() => turn.mutate({ id: run.id, to: "stop" })}>
              Stop
            </Button>
          )}
          {(run.state === "stopped" || run.state === "failed") && (
            <Button variant="default" onClick={() => turn.mutate({ id: run.id, to: "resume" })}>
              Go on with it
            </Button>
          )}
        </div>
      </div>
      {(run.waits_for || run.message || turn.error) && (
        <p className={classes.note} data-state={run.state}>
          {turn.error?.message ?? (run.waits_for || run.message)}
        </p>
      )}
      {run.since && (
        <button type="button" className={classes.since} onClick={toggle} aria-expanded={opened}>
          {said(run.since)}
        </button>
      )}
      {opened && <Changes delivery={run.id} />}
    </div>
  );
}

function said(since: NonNullable<Run["since"]>): string {
  const parts = (["added", "removed", "heavier", "lighter", "other"] as const)
    .filter((k) => since[k])
    .map((k) => `${since[k]} ${k === "other" ? "otherwise" : k}`);
  if (!parts.length) return "Exactly as the delivery before";
  const more = since.bytes_more;
  return `Since the delivery before: ${parts.join(", ")}, ${bytes(Math.abs(more))} ${more < 0 ? "less" : "more"}`;
}
