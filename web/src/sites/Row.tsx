import type { ReactNode } from "react";
import classes from "./Settings.module.css";

/** One subject of the settings. */
export function Row({ label, children }: { label: string; children: ReactNode }) {
  return (
    <section className={classes.row} aria-label={label}>
      <h2>{label}</h2>
      <div className={classes.fields}>{children}</div>
    </section>
  );
}
