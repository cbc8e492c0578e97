/** One strip: runs of widths with a verdict, each with its colour, its pattern and its word. */
import type { Band } from "../../api/queries";
import { bytes, percent } from "../../ui/format";
import { runAt, type Scale, valueAt } from "../scale";
import classes from "./Horizon.module.css";

interface Props {
  band: Band;
  scale: Scale;
  budget: number;
  cursor: number;
  /** A run that fails has been pressed, which begins at a width. */
  pressed?: (first: number) => void;
}

export function BandRow({ band, scale, budget, cursor, pressed }: Props) {
  if (band.kind === "frame") return <FrameRow band={band} scale={scale} />;
  if (band.kind === "weight") return <WeightRow band={band} scale={scale} budget={budget} />;
  const here = runAt(band, cursor);
  return (
    <div
      className={classes.band}
      role="img"
      aria-label={`${band.name}: ${describe(band)}`}
      data-here={here?.verdict}
    >
      {band.runs?.map((r) => (
        <i
          key={r.first}
          data-verdict={r.verdict}
          style={scale.run(r)}
          title={`${band.name}: ${r.verdict} from ${r.first} to ${r.last} px${atWorst(band, r)}`}
          onPointerUp={pressed && r.verdict !== "whole" ? () => pressed(r.first) : undefined}
        />
      ))}
    </div>
  );
}

function atWorst(band: Band, r: Run): string {
  if (band.kind === "readable") return `, at worst ${r.worst.toFixed(1)} : 1 at ${r.worst_at}`;
  if (band.kind === "fits")
    return r.worst < 0 ? `, by ${Math.round(-r.worst)} px at ${r.worst_at}` : "";
  if (band.kind === "clear")
    return r.worst < 0.995 ? `, ${percent(1 - r.worst)} at ${r.worst_at}` : "";
  if (band.kind === "together")
    return r.worst < 1 ? `, ${percent(r.worst)} of them whole at ${r.worst_at}` : "";
  if (band.kind === "lettering")
    return r.worst < 1 ? `, ${percent(r.worst)} of the least height at ${r.worst_at}` : "";
  if (band.kind === "seen")
    return r.worst < 1 ? `, at worst ${percent(r.worst)} at ${r.worst_at}` : "";
  if (band.kind === "one") return r.worst === 1 ? "" : `, ${r.worst} of them show`;
  return r.worst < 1 ? `, at worst ${percent(r.worst)} at ${r.worst_at}` : "";
}

const describe = (band: Band) =>
  band.runs?.map((r) => `${r.verdict} ${r.first}–${r.last}`).join(", ") ?? "";

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
      {known.length > 0 && (
        <div className={classes.budget} style={{ bottom: `${(budget / most) * 100}%` }} />
      )}
    </div>
  );
}

/**
 * Steps along the axis at which a curve is drawn: straight over widths, it is bent on a logarithmic
 * axis.
 */
const STEPS = 240;

/** The width of the frame at every width of the page, and where it is widest. */
function FrameRow({ band, scale }: { band: Band; scale: Scale }) {
  const { peak } = band;
  if (!peak) return <div className={classes.weight} />;
  const [at, most] = peak;
  const line = Array.from({ length: STEPS + 1 }, (_, i) => {
    const value = valueAt(band.curve, scale.width(i / STEPS)) ?? 0;
    return `${(i / STEPS) * 1000},${44 - (value / most) * 40}`;
  });
  const side =
    scale.at(at) > 0.8 ? { right: `${(1 - scale.at(at)) * 100}%` } : { left: scale.percent(at) };
  return (
    <div
      className={classes.weight}
      role="img"
      aria-label={`${band.name}: widest at ${at} px, ${Math.round(most)} px`}
    >
      <svg
        className={classes.curve}
        viewBox="0 0 1000 44"
        preserveAspectRatio="none"
        aria-hidden="true"
      >
        <polygon points={`0,44 ${line.join(" ")} 1000,44`} />
        <polyline points={line.join(" ")} />
      </svg>
      <span className={classes.peak} style={side}>
        {Math.round(most * 100) / 100} px at {at}
      </span>
    </div>
  );
}
