/** One value of a treatment: its name, the control, and whether it is own or handed down, with a way back. */
import type { ReactNode } from "react";
import type { Treatment } from "../../api/queries";
import { useWork } from "../context";
import classes from "./Field.module.css";

interface Props {
  field: keyof Treatment;
  label: string;
  children: ReactNode;
  error?: string;
}

export function Field({ field, label, children, error }: Props) {
  const { span, handle, reading } = useWork();
  const own = span.own.includes(field);
  const from = span.origin[field];
  const widest = span.last === reading.widest;
  return (
    <div className={classes.field} data-own={own || undefined}>
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
              onClick={() => handle.treat(span.letter, { [field]: undefined })}
            >
              reset
            </button>
          </>
        ) : (
          `${from ? `from ${from}` : "default"}`
        )}
      </div>
    </div>
  );
}
