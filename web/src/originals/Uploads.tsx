/**
 * Pictures that are on their way, in a corner over the screen: nothing that is there moves for
 * them.
 */
import { Portal, Progress } from "@mantine/core";
import { plural } from "../ui/format";
import classes from "./Uploads.module.css";
import type { Upload } from "./useUploads";

interface Props {
  list: readonly Upload[];
  dismiss: (upload: number) => void;
  /** Take away all that has come to an end. */
  clear: () => void;
  /** Whether it is said that all have come, and not only what there is to say of them. */
  summed?: boolean;
}

/** Where they stand, one above the other. The shell has it. */
export const UPLOADS = "uploads";

export function Uploads({ list, dismiss, clear, summed = false }: Props) {
  const refused = list.filter((u) => u.state === "refused").length;
  const here = list.filter((u) => u.state === "here").length;
  const busy = list.length - here - refused;
  const told = list.filter((u) => u.state !== "here" || (summed && noteOf(u)));
  if (!(summed ? list : told).length) return null;
  return (
    <Portal target={`#${UPLOADS}`}>
      <aside className={classes.uploads} aria-label="Uploads" aria-live="polite">
        <header>
          <strong>
            {busy
              ? `Bringing ${plural(list.length, "picture")}`
              : refused
                ? "Not all came in"
                : "Done"}
          </strong>
          <span className="soft">
            {here} here{refused ? `, ${refused} refused` : ""}
          </span>
          {!busy && (
            <button type="button" className="plain" onClick={clear}>
              close
            </button>
          )}
        </header>
        <ul>
          {told.map((u) => (
            <li key={u.id}>
              <span>{u.name}</span>
              {u.state === "refused" ? (
                <>
                  <b className={classes.refused} role="alert">
                    {u.error}
                  </b>
                  <button
                    type="button"
                    className="plain"
                    aria-label={`Dismiss what is said of ${u.name}`}
                    onClick={() => dismiss(u.id)}
                  >
                    dismiss
                  </button>
                </>
              ) : u.state === "here" ? (
                <span className="soft">{noteOf(u)}</span>
              ) : (
                <Progress
                  value={u.progress * 100}
                  aria-label={`${u.name} ${Math.round(u.progress * 100)} %`}
                />
              )}
            </li>
          ))}
        </ul>
      </aside>
    </Portal>
  );
}

const noteOf = ({ original }: Upload) =>
  original?.is_new === false ? "was here already" : original?.notes.join(" ") || "";
