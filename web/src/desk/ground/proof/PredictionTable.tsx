import type { Prediction } from "../../../api/queries";
import { bytes } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import ground from "../Ground.module.css";
import classes from "./Proof.module.css";
import { said, short, type Taken } from "./taken";

interface Props {
  rows: Prediction[];
  chosen: Prediction | undefined;
  choose: (p: Prediction) => void;
  /** What this browser took in a case that was tried. */
  taken: (p: Prediction) => Taken | undefined;
  triable: (p: Prediction) => boolean;
}

export function PredictionTable({ rows, chosen, choose, taken, triable }: Props) {
  // where a width is there in both orientations, its height tells them apart
  const turned = new Set(rows.map((p) => p.case.width)).size < new Set(rows.map(sizeOf)).size;
  return (
    <table className={ground.table}>
      <thead>
        <tr>
          <th> </th>
          <th className={ground.right}>Width</th>
          <th>Density</th>
          <th>Predicted</th>
          <th className={ground.right}>px</th>
          <th className={ground.right}>Bytes</th>
          <th>This browser took</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((p) => {
          const took = taken(p);
          return (
            <tr
              key={`${sizeOf(p)} ${p.case.density}`}
              data-press
              aria-selected={chosen === p}
              tabIndex={0}
              onClick={() => choose(p)}
              onKeyDown={(e) => e.key === "Enter" && choose(p)}
            >
              <td>
                <Letter of={p.span} small />
              </td>
              <td className={ground.right}>{turned ? sizeOf(p) : p.case.width}</td>
              <td>{p.case.density}x</td>
              <td className="num">{short(p.url)}</td>
              <td className={ground.right}>{p.file?.width_px}</td>
              <td className={ground.right}>
                {p.file?.size_bytes != null && bytes(p.file.size_bytes)}
              </td>
              <td>
                {took ? (
                  <Agreement taken={took} predicted={p} />
                ) : (
                  <span className="soft">{triable(p) ? "not tried" : "–"}</span>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const sizeOf = (p: Prediction) => `${p.case.width} × ${p.case.height}`;

function Agreement({ taken, predicted }: { taken: Taken; predicted: Prediction }) {
  const same = taken.url === predicted.url;
  return (
    <strong className={same ? classes.same : classes.other}>
      {same ? "the same" : said(taken)}
    </strong>
  );
}
