/** Another picture for viewports that are at least as high as they are wide. */
import type { RefObject } from "react";
import type { Look, Treatment } from "../../../api/queries";
import { useWork } from "../../context";
import { partOf } from "../../draft";
import { usualAt } from "../../parts";
import { useVariant } from "../useVariant";
import { ValueRow } from "../ValueRow";
import classes from "./Aim.module.css";
import { OriginalChooser } from "./OriginalChooser";

export function InPortrait({ openFiles }: { openFiles: RefObject<(() => void) | null> }) {
  const { handle, originals, choosePart } = useWork();
  const { index, shown, own, from, say, usual, reset } = useVariant(["portrait"]);
  const { parts } = handle.draft.placement;
  const part = partOf(handle.draft, handle.part);
  if (part.of != null)
    return (
      <div className={classes.stands}>
        In portrait this shows in the place of the picture.{" "}
        <button
          type="button"
          className="plain"
          onClick={() => choosePart(usualAt(parts, handle.part))}
        >
          the picture
        </button>
      </div>
    );
  const name = originals.find((o) => o.id === shown)?.name ?? "a picture that is gone";
  const give = (original: number, look: Look) =>
    say({ show: "picture", original } as Treatment, { [original]: look });
  // the part is there once it has been said, and files go to the part that is worked on
  const bring = async () => {
    const at = await say({ show: "picture" });
    if (at === undefined) return;
    choosePart(at);
    openFiles.current?.();
  };
  return (
    <ValueRow label="In portrait" own={own} from={from} reset={reset}>
      <span className={classes.file}>{shown === null ? "the same picture" : name}</span>
      <OriginalChooser
        give={give}
        bring={bring}
        label={shown === null ? "Another…" : "Change…"}
        chosen={shown}
      />
      {shown !== null && (
        <>
          <button type="button" className="plain" onClick={() => choosePart(index)}>
            aim it
          </button>
          <button type="button" className="plain" onClick={usual}>
            the same
          </button>
        </>
      )}
    </ValueRow>
  );
}
