import type { Prediction } from "../../../api/queries";
import ground from "../Ground.module.css";
import classes from "./Proof.module.css";
import { short } from "./taken";

/** The browser's way to a file, step by step. */
export function Why({ of }: { of: Prediction }) {
  return (
    <div className={ground.card}>
      <h3>
        Why at {of.case.width} × {of.case.height}, {of.case.density}x
      </h3>
      <ol className={classes.why}>
        {of.trace.map((s, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps are in order
          <li key={i} data-taken={s.taken || undefined}>
            <code>{s.element}</code> {s.why}
          </li>
        ))}
      </ol>
      <code className={classes.result}>→ {short(of.url)}</code>
    </div>
  );
}
