/**
 * What hangs on an answer: while a newer one is under way it stays where it stands, pale, and
 * cannot be pressed. Better pale than untrue.
 */
import type { ReactNode, SyntheticEvent } from "react";
import { useWork } from "./context";
import classes from "./Desk.module.css";

const stop = (e: SyntheticEvent) => {
  e.preventDefault();
  e.stopPropagation();
};

/** `moves`: it follows what moves, so that it is up to date while something is dragged. */
export function Told({ moves = false, children }: { moves?: boolean; children: ReactNode }) {
  const { pending } = useWork();
  const old = pending === "all" || (pending === "rest" && !moves);
  return (
    <div
      className={classes.told}
      data-old={old || undefined}
      aria-busy={old}
      onClickCapture={old ? stop : undefined}
    >
      {children}
    </div>
  );
}
