/** A spot of which nobody has said how wide it is asks for it. */
import type { Treatment } from "../../../api/queries";
import { useWork } from "../../context";
import { withCommon, withTreatment } from "../../draft";
import { usualAt } from "../../parts";
import type { StageReading } from "./ask";
import classes from "./Stage.module.css";

interface Props {
  widths: StageReading["first"];
  draw: (() => void) | undefined;
}

export function FirstFrame({ widths, draw }: Props) {
  const { handle, reading } = useWork();
  if (!widths.length) return null;
  const at = usualAt(handle.draft.placement.parts, handle.part);
  const widest = reading.spans.at(-1)?.letter ?? "D";
  const take = (width: Treatment["width"]) =>
    handle.change((draft) =>
      reading.items
        ? withCommon(draft, widest, { width } as Treatment)
        : withTreatment(draft, at, widest, { width } as Treatment),
    );
  return (
    <fieldset className={classes.first}>
      <legend>How wide is this spot?</legend>
      {widths.map(({ words, width }) => (
        <button key={words} type="button" className={classes.pick} onClick={() => take(width)}>
          {words}
        </button>
      ))}
      {draw && (
        <button type="button" className={classes.pick} onClick={draw}>
          draw it on the design
        </button>
      )}
    </fieldset>
  );
}
