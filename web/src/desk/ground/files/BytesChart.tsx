/** Bytes over width, a line per format, and what that saves against plain JPEG. */
import { bytes, FORMATS, percent } from "../../../ui/format";
import { useWork } from "../../context";
import ground from "../Ground.module.css";
import classes from "./Chart.module.css";
import type { Format, Row } from "./FileTable";

const W = 320;
const H = 96;

interface Line {
  format: Format;
  points: [number, number][];
}

/** Files of one group by format, as far as they are made. */
function linesOf(rows: Row[]): Line[] {
  const formats = [...new Set(rows.flatMap((r) => r.formats.map((f) => f.format)))];
  return formats
    .map((format) => ({
      format,
      points: rows.flatMap((r): [number, number][] => {
        const size = r.formats.find((f) => f.format === format)?.size_bytes;
        return size == null ? [] : [[r.width_px, size]];
      }),
    }))
    .filter((line) => line.points.length > 1);
}

export function BytesChart() {
  const { reading, span } = useWork();
  const rows = reading.files.filter(
    (f) => f.part === reading.part && f.spans.includes(span.letter),
  );
  const lines = linesOf(rows);
  if (!lines.length) return null;
  const all = lines.flatMap((l) => l.points);
  const most = Math.max(...all.map(([, size]) => size));
  const widest = Math.max(...all.map(([w]) => w));
  const at = ([w, size]: [number, number]) => `${(w / widest) * W},${H - (size / most) * H}`;
  const saving = reading.savings.find(
    (s) => s.part === reading.part && s.spans.includes(span.letter),
  );
  return (
    <section className={ground.card} aria-label="Bytes over width">
      <div className={classes.head}>
        <h3>Bytes over width</h3>
        {saving && (
          <span className="soft">
            {FORMATS[saving.format]} saves {percent(saving.share)} against {FORMATS[saving.against]}
          </span>
        )}
      </div>
      <svg
        className={classes.chart}
        viewBox={`-2 -6 ${W + 62} ${H + 22}`}
        role="img"
        aria-label="One line per format"
      >
        <line x1="0" x2={W} y1={H} y2={H} />
        {lines.map((l) => (
          <g key={l.format} data-format={l.format}>
            <polyline points={l.points.map(at).join(" ")} />
            {l.points.map((p) => (
              <circle key={p[0]} cx={(p[0] / widest) * W} cy={H - (p[1] / most) * H} r="2.5">
                <title>{`${FORMATS[l.format]}, ${p[0]} px: ${bytes(p[1])}`}</title>
              </circle>
            ))}
          </g>
        ))}
        {spread(lines.map((l) => H - ((l.points.at(-1)?.[1] ?? 0) / most) * H)).map((y, i) => (
          <text key={lines[i]?.format} x={W + 7} y={y + 4}>
            {FORMATS[lines[i]?.format ?? "jpeg"]}
          </text>
        ))}
        {[...new Set(all.map(([w]) => w))].map((w) => (
          <text key={w} x={(w / widest) * W} y={H + 13} textAnchor="middle">
            {w}
          </text>
        ))}
      </svg>
    </section>
  );
}

/** Heights at which labels do not lie on each other, as near to where they belong as that goes. */
export function spread(ys: number[], gap = 13): number[] {
  const order = ys.map((y, i) => ({ y, i })).sort((a, b) => a.y - b.y);
  for (let k = 1; k < order.length; k++) {
    const [above, here] = [order[k - 1], order[k]];
    if (above && here) here.y = Math.max(here.y, above.y + gap);
  }
  const out = [...ys];
  for (const { y, i } of order) out[i] = y;
  return out;
}
