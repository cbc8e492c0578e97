/** One strip: runs of widths with a verdict, each with its colour, its pattern and its word. */
import type { Band } from "../../api/queries";
import { bytes, percent } from "../../ui/format";
import { runAt, type Scale, valueAt } from "../scale";
import classes from "./Horizon.module.css";

export function BandRow({ band, scale, budget, cursor }: { band: Band; scale: Scale; budget: number; cursor: number }) {
  if (band.kind === "weight") return <WeightRow band={band} scale={scale} budget={budget} />;
  const here = runAt(band, cursor);
  return (
    <div className={classes.band} role="img" aria-label={`${band.name}: ${describe(band)}`} data-here={here?.verdict}>
      {band.runs?.map((r) => (
        <i
          key={r.first}
          data-verdict={r.verdict}
          style={scale.run(r)}
          title={`${band.name}: ${r.verdict} from ${r.first} to ${r.last} px${r.worst < 1 ? `, at worst ${percent(r.worst)} at ${r.worst_at}` : ""}`}
        />
      ))}
    </div>
  );
}

const describe = (band: Band) => band.runs?.map((r) => `${r.verdict} ${r.first}–${r.last}`).join(", ") ?? "";

type Run = Band["runs"][number];

interface WeightProps {
  band: Band;
  scale: Scale;
  budget: number;
}

/** Bytes at every width as heights, against the line of the budget. */
function WeightRow({ band, scale, budget }: WeightProps) {
  const weighs = (r: Run) => valueAt(band.curve, r.first) ?? 0;
  const most = Math.max(budget * 1.25, ...band.runs.map((r) => weighs(r) * 1.1));
  const known = band.runs.filter((r) => r.verdict !== "unknown");
  return (
    <div
      className={classes.weight}
      role="img"
      aria-label={`${band.name}: ${known.length ? describe(band) : "known after an export"}`}
    >
      {!known.length && <em>known after an export</em>}
      {known.map((r) => (
        <i
          key={r.first}
          data-verdict={r.verdict}
          data-low={weighs(r) < most / 2 || undefined}
          style={{ ...scale.run(r), height: `${(weighs(r) / most) * 100}%` }}
          title={`${bytes(weighs(r))} from ${r.first} to ${r.last} px, ${r.verdict}`}
        >
          <b>{bytes(weighs(r))}</b>
        </i>
      ))}
      {known.length > 0 && <div className={classes.budget} style={{ bottom: `${(budget / most) * 100}%` }} />}
    </div>
  );
}
