import { Link } from "react-router";
import type { Finding } from "../api/queries";
import classes from "./Placements.module.css";

const MOST_TOLD = 3;

interface Props {
  /** The address of the placement's desk. */
  desk: string;
  findings: Finding[];
  error?: string;
}

/** How a placement fares, in its first findings; each leads to where it is mended. */
export function Health({ desk, findings, error }: Props) {
  if (error) return <span className={classes.bad}>{error}</span>;
  if (!findings.length) return <span className={classes.good}>no findings</span>;
  return (
    <ul className={classes.findings}>
      {findings.slice(0, MOST_TOLD).map((f) => (
        <li key={`${f.part} ${f.sentence}`}>
          <Link to={`${desk}/${f.step}?${placeOf(f)}`} title={f.remedy}>
            {f.sentence}
          </Link>
        </li>
      ))}
      {findings.length > MOST_TOLD && <li>and {findings.length - MOST_TOLD} more</li>}
    </ul>
  );
}

function placeOf({ spans, part }: Finding) {
  const span = spans.at(-1);
  return new URLSearchParams({ ...(span && { span }), ...(part && { part: String(part + 1) }) });
}
