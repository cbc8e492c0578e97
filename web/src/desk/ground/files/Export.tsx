/** The run that makes the files: begun, followed, stopped, and what came of it. */
import { Button, Progress } from "@mantine/core";
import {
  isOpen,
  useResumeDelivery,
  useStartDelivery,
  useStopDelivery,
} from "../../../api/deliveries";
import type { Delivery } from "../../../api/queries";
import { bytes, plural, timeLeft } from "../../../ui/format";
import { useWork } from "../../context";
import { isOlder } from "../../older";
import ground from "../Ground.module.css";
import classes from "./Files.module.css";

export function Export() {
  const { delivery, placementId, handle, reading } = useWork();
  const start = useStartDelivery(placementId);
  const stop = useStopDelivery(placementId);
  const resume = useResumeDelivery(placementId);
  const total = reading.files.reduce((n, f) => n + f.formats.length, 0);
  const missing = reading.files.reduce(
    (n, f) => n + f.formats.filter((x) => x.size_bytes == null).length,
    0,
  );
  const begin = async (effort: "quick" | "thorough") => {
    if (await handle.save()) start.mutate(effort);
  };
  if (delivery && isOpen(delivery.state)) {
    return (
      <div className={ground.card} role="status">
        <div className={classes.run}>
          <h3>
            {delivery.waits_for
              ? "Waiting"
              : delivery.state === "queued"
                ? "Waiting for the worker"
                : `Making ${plural(delivery.total - delivery.reused, "file")}`}
          </h3>
          <span className="soft">
            {delivery.done} of {delivery.total}
          </span>
        </div>
        <Progress
          value={(delivery.done / Math.max(1, delivery.total)) * 100}
          aria-label="Progress"
          my={8}
        />
        {delivery.waits_for || delivery.message ? (
          <p className={classes.said} data-state="failed">
            {delivery.waits_for || delivery.message}
          </p>
        ) : (
          <div className={classes.run}>
            <code>{delivery.current || "…"}</code>
            <span className={classes.left}>
              {bytes(delivery.size_bytes)} so far
              {delivery.seconds_left != null && `, ${timeLeft(delivery.seconds_left)}`}
            </span>
          </div>
        )}
        {stop.error && (
          <p className={classes.said} data-state="failed" role="alert">
            {stop.error.message}
          </p>
        )}
        <div className={classes.run}>
          <Button
            variant="default"
            onClick={() => stop.mutate(delivery.id)}
            disabled={delivery.state === "stopping"}
          >
            {delivery.state === "stopping" ? "Stopping after this file" : "Stop"}
          </Button>
          {delivery.reused > 0 && <span className="soft">{delivery.reused} were here already</span>}
        </div>
      </div>
    );
  }
  const done = delivery?.state === "done";
  const looked = done && delivery.effort === "quick";
  const current = done && !isOlder({ delivery, handle });
  return (
    <div className={ground.card}>
      <h3>
        {total === 0
          ? "Nothing to export yet"
          : current
            ? `${plural(delivery.handed, "file")}, ${bytes(delivery.size_bytes)}`
            : `${plural(total, "file")}, ${missing === total ? "none made yet" : missing ? `${missing} to make` : "all made"}`}
      </h3>
      {delivery?.state === "failed" || delivery?.state === "stopped" ? (
        <p className={classes.said} data-state={delivery.state}>
          {delivery.message}
        </p>
      ) : done && !current ? (
        <p className={classes.said}>The placement has changed since the last export.</p>
      ) : done ? (
        <p className={classes.said}>
          {delivery.reused ? `${delivery.reused} were here already, ` : ""}
          {plural(delivery.total - delivery.reused, "file")} made
          {delivery.handed < delivery.total &&
            `, ${delivery.total - delivery.handed} no smaller and left out`}
          .{looked && " A quick look: export for what is handed over."}
          <Whys files={delivery.files} />
        </p>
      ) : null}
      {(start.error || resume.error) && (
        <p className={classes.said} data-state="failed" role="alert">
          {(start.error ?? resume.error)?.message}
        </p>
      )}
      <div className={classes.run}>
        <Button
          onClick={() => begin("thorough")}
          loading={start.isPending}
          disabled={total === 0}
          variant={current && !looked ? "default" : "filled"}
        >
          {current && !looked ? "Export again" : "Export"}
        </Button>
        {missing > 0 && missing === total && (
          <Button
            variant="default"
            onClick={() => begin("quick")}
            disabled={start.isPending}
            title="The same files in less time and a few more bytes, to see what comes of it"
          >
            Quick look
          </Button>
        )}
        {(delivery?.state === "stopped" || delivery?.state === "failed") && (
          <Button
            variant="default"
            loading={resume.isPending}
            onClick={() => resume.mutate(delivery.id)}
          >
            Go on with it
          </Button>
        )}
        {done && !looked && (
          <Button
            component="a"
            href={`/api/deliveries/${delivery.id}/zip`}
            variant={current ? "filled" : "default"}
          >
            Download zip
          </Button>
        )}
      </div>
    </div>
  );
}

/** Why files were made, or need not be. */
function Whys({ files }: { files: Delivery["files"] }) {
  const counts = new Map<string, number>();
  for (const f of files) if (f.why && !f.reused) counts.set(f.why, (counts.get(f.why) ?? 0) + 1);
  if (!counts.size) return null;
  return (
    <span className={classes.whys}>{[...counts].map(([why, n]) => `${n}: ${why}`).join("; ")}</span>
  );
}
