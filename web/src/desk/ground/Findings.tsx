import type { Finding } from "../../api/queries";
import { useTrimOriginal } from "../../api/queries";
import { Letter } from "../../ui/Letter";
import { useWork } from "../context";
import classes from "./Ground.module.css";

/**
 * What is wrong here, where, and the remedy; pressed, each leads to the span, part, step and value
 * where it is mended.
 */
export function Findings({ of }: { of: Finding[] }) {
  const { lead } = useWork();
  return of.map((f) => (
    <div key={`${f.part} ${f.rule} ${f.sentence}`} className={classes.finding}>
      <button type="button" onClick={() => lead(f)}>
        <strong>
          {f.spans.map((s) => (
            <span key={s} style={{ marginRight: 5 }}>
              <Letter of={s} small />
            </span>
          ))}
          {f.sentence}
        </strong>
        <span>{f.remedy}</span>
      </button>
      {f.at === "trim" && <Trim part={f.part} />}
    </div>
  ));
}

/** The edges of what a part shows, trimmed where it is told of. */
function Trim({ part }: { part: number }) {
  const { site, reading, originals } = useWork();
  const trim = useTrimOriginal(site.id);
  const shown = new Set(reading.parts[part]?.spans.map((s) => s.effective.original));
  const untrimmed = originals.filter((o) => shown.has(o.id) && o.alpha && !o.trimmed);
  return (
    <>
      {untrimmed.map((o) => (
        <button
          key={o.id}
          type="button"
          className="plain"
          disabled={trim.isPending}
          onClick={() => trim.mutate({ id: o.id, trim: true })}
        >
          Trim {untrimmed.length > 1 ? o.name : "them now"}
        </button>
      ))}
      {trim.error && <span role="alert">{trim.error.message}</span>}
    </>
  );
}
