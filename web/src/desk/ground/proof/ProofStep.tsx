/**
 * Proof: what this very browser does with the delivered page, beside what was predicted, and why.
 */
import { Button, Select } from "@mantine/core";
import { useState } from "react";
import { Link } from "react-router";
import { useDelivered, usePredictions } from "../../../api/deliveries";
import type { Prediction } from "../../../api/queries";
import { Failure } from "../../../ui/states";
import { useDesk, useWork } from "../../context";
import { isOlder } from "../../older";
import ground from "../Ground.module.css";
import { LiveFrame } from "./LiveFrame";
import { PredictionTable } from "./PredictionTable";
import classes from "./Proof.module.css";
import { type Formats, pageOf, type Taken, takenBy, useBrowserFormats } from "./taken";
import { Why } from "./Why";

export function ProofStep() {
  const { placementId, site, delivery, handle } = useWork();
  const delivered = useDelivered(placementId, true);
  if (delivered.isPending) return <div className={ground.column}>Looking for an export…</div>;
  if (delivered.error) return <Failure error={delivered.error} again={delivered.refetch} />;
  if (!delivered.data)
    return (
      <div className={ground.column}>
        <p>
          There is nothing to prove yet:{" "}
          <Link to={`/sites/${site.id}/placements/${placementId}/files`}>export the files</Link>{" "}
          first.
        </p>
      </div>
    );
  return <Proof id={delivered.data.id} stale={isOlder({ delivery, handle })} />;
}

function Proof({ id, stale }: { id: number; stale: boolean }) {
  const { site, reading, span, cursor, setCursor } = useDesk();
  const part = reading.parts[reading.part]?.place ?? reading.part;
  const [formats, setFormats] = useState<Formats>("all");
  const own = window.devicePixelRatio;
  const densities = site.plan.densities;
  const [asked, setAsked] = useState(false);
  const service = asked && Boolean(site.plan.hand_over.service);
  const rows = usePredictions(id, { densities, formats, part, service });
  const [why, setWhy] = useState<Prediction>();
  const [results, setResults] = useState<Record<string, Taken>>({});
  const [trying, setTrying] = useState(0);
  const supported = useBrowserFormats();
  // densities beyond the screen's own can only be predicted
  const triable = (p: Prediction) => p.case.density === own && formats === supported;
  const key = (p: Prediction) =>
    `${id} ${part} ${service} ${p.case.width} ${p.case.height} ${p.case.density} ${formats}`;
  const table = rows.data ?? [];
  const tryAll = async () => {
    const todo = table.filter(triable);
    setResults({});
    for (const [i, p] of todo.entries()) {
      setTrying(i + 1);
      const taken = await takenBy(id, p.case.width, p.case.height, p, pageOf(service));
      setResults((r) => ({ ...r, [key(p)]: taken }));
    }
    setTrying(0);
  };
  const tried = table.filter((p) => results[key(p)]);
  const agree = tried.filter((p) => results[key(p)]?.url === p.url).length;
  // the reason that stands is one of the span at the cursor
  const shown =
    why?.span === span.letter
      ? why
      : nearest(
          table.filter((p) => p.span === span.letter),
          cursor,
        );
  const choose = (p: Prediction) => {
    setWhy(p);
    setCursor(p.case.width);
  };
  return (
    <>
      <LiveFrame id={id} part={part} service={service} supported={supported} onWhy={setWhy} />
      <div className={ground.column} style={{ flex: "1 1 44%" }}>
        <div className={classes.tools}>
          <Select
            aria-label="Formats the browser knows"
            value={formats}
            onChange={(v) => setFormats((v ?? "all") as Formats)}
            allowDeselect={false}
            data={[
              { value: "all", label: "knows AVIF, WebP, JPEG" },
              { value: "webp", label: "knows WebP, JPEG" },
              { value: "jpeg", label: "knows JPEG only" },
            ]}
          />
          {site.plan.hand_over.service && (
            <Select
              aria-label="Where pictures come from"
              value={service ? "service" : "files"}
              onChange={(v) => setAsked(v === "service")}
              allowDeselect={false}
              data={[
                { value: "files", label: "from the files" },
                { value: "service", label: "from the image service" },
              ]}
            />
          )}
          <Button
            variant="default"
            onClick={tryAll}
            loading={trying > 0}
            disabled={!table.some(triable)}
          >
            Try all at {own}x in this browser
          </Button>
          <span className="soft">
            {trying > 0
              ? `${trying} of ${table.filter(triable).length}`
              : tried.length > 0
                ? `${agree} of ${tried.length} agree`
                : table.some(triable)
                  ? ""
                  : "Only predicted: this browser differs"}
          </span>
        </div>
        {stale && (
          <p className={classes.stale}>
            The placement has changed since this export; this is the exported page.
          </p>
        )}
        {rows.error && <Failure error={rows.error} again={rows.refetch} />}
        <PredictionTable
          rows={table}
          chosen={shown}
          choose={choose}
          taken={(p) => results[key(p)]}
          triable={triable}
        />
      </div>
      <div className={ground.column} style={{ flex: "0 0 270px", paddingLeft: 0 }}>
        {shown && <Why of={shown} />}
      </div>
    </>
  );
}

/** The prediction for the width that is nearest to one. */
const nearest = (rows: Prediction[], width: number): Prediction | undefined =>
  rows.toSorted((a, b) => Math.abs(a.case.width - width) - Math.abs(b.case.width - width))[0];
