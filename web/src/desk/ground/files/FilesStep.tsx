/** Files: the renditions needed, and the run that makes them. */
import { Button, Progress } from "@mantine/core";
import { isOpen, useStartDelivery, useStopDelivery } from "../../../api/queries";
import { bytes, FORMATS, plural, size } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import { useWork } from "../../context";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import classes from "./Files.module.css";

export function FilesStep() {
  const { reading, choose, span } = useWork();
  const formats = [...new Set(reading.files.flatMap((f) => f.formats.map((x) => x.format)))];
  const heaviest = Math.max(1, ...reading.files.flatMap((f) => f.formats.map((x) => x.size_bytes ?? 0)));
  return (
    <>
      <div className={ground.column} style={{ flex: "1 1 66%" }}>
        {reading.files.length === 0 ? (
          <p className="soft">No files are needed as long as there is no picture. Choose one in Aim.</p>
        ) : (
          <table className={ground.table}>
            <thead>
              <tr>
                <th>Span</th>
                <th>Density</th>
                <th>Size in px</th>
                <th>Name</th>
                {formats.map((f) => (
                  <th key={f} className={ground.right}>
                    {FORMATS[f]}
                  </th>
                ))}
                <th style={{ width: "18%" }}>Bytes, lightest against heaviest</th>
              </tr>
            </thead>
            <tbody>
              {reading.files.map((f, i) => {
                const first = reading.files[i - 1]?.spans.join() !== f.spans.join();
                const known = f.formats.map((x) => x.size_bytes).filter((b) => b != null);
                return (
                  <tr
                    key={f.stem}
                    aria-selected={f.spans.includes(span.letter)}
                    data-press
                    onClick={() => choose(f.spans[0] as string)}
                  >
                    <td>
                      <span className={classes.letters}>{first && f.spans.map((s) => <Letter key={s} of={s} />)}</span>
                    </td>
                    <td>{f.density}x</td>
                    <td className="num">
                      {size(f.width_px, f.height_px)}
                      {f.soft && (
                        <span
                          className={classes.soft}
                          title={`${f.needed_px} px are needed; sharp up to ${f.sharp_to_density}x`}
                        >
                          soft, {f.share.toFixed(2)}×
                        </span>
                      )}
                    </td>
                    <td className="num">{f.stem}</td>
                    {formats.map((format) => {
                      const one = f.formats.find((x) => x.format === format);
                      return (
                        <td key={format} className={ground.right}>
                          {!one ? "" : one.size_bytes != null ? bytes(one.size_bytes) : <span className="soft">–</span>}
                        </td>
                      );
                    })}
                    <td>
                      {known.length > 0 && (
                        <div className={classes.bar}>
                          <i style={{ width: `${(Math.max(...known) / heaviest) * 100}%` }} />
                          <b style={{ width: `${(Math.min(...known) / heaviest) * 100}%` }} />
                        </div>
                      )}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
        )}
      </div>
      <div className={ground.column} style={{ flex: "1 1 34%" }}>
        <div className={ground.stack}>
          <Export />
          <Findings of={reading.findings.filter((f) => f.step === "files")} />
        </div>
      </div>
    </>
  );
}

function Export() {
  const { delivery, placementId, handle, reading } = useWork();
  const start = useStartDelivery(placementId);
  const stop = useStopDelivery(placementId);
  const total = reading.files.reduce((n, f) => n + f.formats.length, 0);
  const missing = reading.files.reduce((n, f) => n + f.formats.filter((x) => x.size_bytes == null).length, 0);
  const begin = async () => {
    if (await handle.save()) start.mutate(undefined);
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
        <Progress value={(delivery.done / Math.max(1, delivery.total)) * 100} aria-label="Progress" my={8} />
        {delivery.waits_for || delivery.message ? (
          <p className={classes.said} data-state="failed">
            {delivery.waits_for || delivery.message}
          </p>
        ) : (
          <div className={classes.run}>
            <code>{delivery.current || "…"}</code>
          </div>
        )}
        {stop.error && (
          <p className={classes.said} data-state="failed" role="alert">
            {stop.error.message}
          </p>
        )}
        <div className={classes.run}>
          <Button variant="default" onClick={() => stop.mutate(delivery.id)} disabled={delivery.state === "stopping"}>
            {delivery.state === "stopping" ? "Stopping after this file" : "Stop"}
          </Button>
          {delivery.reused > 0 && <span className="soft">{delivery.reused} were here already</span>}
        </div>
      </div>
    );
  }
  const done = delivery?.state === "done";
  return (
    <div className={ground.card}>
      <h3>
        {total === 0
          ? "Nothing to export yet"
          : done && delivery.is_current
            ? `${plural(delivery.total, "file")}, ${bytes(delivery.size_bytes)}`
            : `${plural(total, "file")}, ${missing === total ? "none made yet" : missing ? `${missing} to make` : "all made"}`}
      </h3>
      {delivery?.state === "failed" || delivery?.state === "stopped" ? (
        <p className={classes.said} data-state={delivery.state}>
          {delivery.message}
        </p>
      ) : done && !delivery.is_current ? (
        <p className={classes.said}>The placement has changed since the last export.</p>
      ) : done ? (
        <p className={classes.said}>
          {delivery.reused ? `${delivery.reused} were here already, ` : ""}
          {plural(delivery.total - delivery.reused, "file")} made.
        </p>
      ) : null}
      {start.error && (
        <p className={classes.said} data-state="failed" role="alert">
          {start.error.message}
        </p>
      )}
      <div className={classes.run}>
        <Button
          onClick={begin}
          loading={start.isPending}
          disabled={total === 0}
          variant={done && delivery.is_current ? "default" : "filled"}
        >
          {done && delivery.is_current ? "Export again" : "Export"}
        </Button>
        {done && (
          <Button
            component="a"
            href={`/api/deliveries/${delivery.id}/zip`}
            variant={delivery.is_current ? "filled" : "default"}
          >
            Download zip
          </Button>
        )}
      </div>
    </div>
  );
}
