import type { Schemas } from "../api/client";
import classes from "./Placements.module.css";

const MOST_TOLD = 3;

/** How a placement fares, in its first findings. */
export function Health({ findings, error }: { findings: Schemas["Finding"][]; error?: string }) {
  if (error) return <span className={classes.bad}>{error}</span>;
  if (!findings.length) return <span className={classes.good}>no findings</span>;
  return (
    <ul className={classes.findings}>
      {findings.slice(0, MOST_TOLD).map((f) => (
        <li key={`${f.part} ${f.sentence}`}>{f.sentence}</li>
      ))}
      {findings.length > MOST_TOLD && <li>and {findings.length - MOST_TOLD} more</li>}
    </ul>
  );
}
