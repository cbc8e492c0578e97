import type { ReactNode } from "react";
import classes from "./Entrance.module.css";
import { Mark } from "./Mark";

/** The page before the application: the mark, the name, and what lets people in. */
export function Entrance({ children }: { children: ReactNode }) {
  return (
    <main className={classes.page}>
      <div className={classes.card}>
        <Mark width={56} />
        <h1>Sky Pane</h1>
        {children}
      </div>
    </main>
  );
}

/** Between two ways in. */
export const Or = ({ children }: { children: ReactNode }) => (
  <div className={classes.or}>{children}</div>
);
