/** One value: its name, the control, and whether it is own or handed down, with a way back. */
import type { ReactNode } from "react";
import { useWork } from "../context";
import classes from "./Field.module.css";

interface Props {
  label: string;
  /** What values it sets: sentences that speak of them lead here. */
  spots?: readonly string[];
  own: boolean;
  /** The span that it is handed down from; "" for a default. */
  from: string | undefined;
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

/** Where a value comes from: "D" is a wider span, "all D" what is said for all items there. */
function said(from: string | undefined, here: string): string {
  if (!from) return "default";
  if (from.startsWith("usual ")) return "as the picture";
  const letter = from.replace(/^(all|frame) /, "");
  if (from.startsWith("all ")) return letter === here ? "all items" : `all, from ${letter}`;
  return `from ${from}`;
}
