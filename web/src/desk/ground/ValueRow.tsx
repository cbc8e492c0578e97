/** One value: its name, the control, and whether it is own or handed down, with a way back. */
import type { ReactNode } from "react";
import type { Origin } from "../../api/queries";
import { useWork } from "../context";
import classes from "./Field.module.css";

interface Props {
  label: string;
  /** What values it sets: sentences that speak of them lead here. */
  spots?: readonly string[];
  own: boolean;
  /** Where it is set, if not here; undefined for a default. */
  from: Origin | undefined;
  reset: () => void;
  children: ReactNode;
  error?: string;
}

export function ValueRow({ label, spots, own, from, reset, children, error }: Props) {
  const { span, reading } = useWork();
  const widest = span.last === reading.widest;
  return (
    <div className={classes.field} data-own={own || undefined} data-spot={spots?.join(" ")}>
      <div className={classes.label}>{label}</div>
      <div className={classes.control}>
        {children}
        {error && (
          <div className={classes.error} role="alert">
            {error}
          </div>
        )}
      </div>
      <div className={classes.origin}>
        {own ? (
          <>
            <b>own</b>
            {" · "}
            <button
              type="button"
              className="plain"
              title={widest ? "Back to the default" : "Back to what the next wider span hands down"}
              aria-label={`Reset ${label.toLowerCase()} of span ${span.letter}`}
              onClick={reset}
            >
              reset
            </button>
          </>
        ) : (
          said(from, span.letter)
        )}
      </div>
    </div>
  );
}

function said(from: Origin | undefined, here: string): string {
  if (!from) return "default";
  switch (from.of) {
    case "usual":
      return "as usual";
    case "all":
      return from.letter === here ? "all items" : `all, from ${from.letter}`;
    case "frame":
      return `from frame ${from.letter}`;
    default:
      return `from ${from.letter}`;
  }
}
