/** A spot of which nobody has said how wide it is asks for it. */
import type { Treatment } from "../../../api/queries";
import { useWork } from "../../context";
import { partOf, withCommon, withTreatment } from "../../draft";
import { usualAt } from "../../parts";
import classes from "./Stage.module.css";

const none = { least_px: null, greatest_px: null };
const WIDTHS: [string, Treatment["width"]][] = [
  ["the page", { kind: "full", margin_px: 0, ...none }],
  ["the container", { kind: "share", percent: 100, of: "container", ...none }],
  ["half of it", { kind: "share", percent: 50, of: "container", ...none }],
  ["a third", { kind: "share", percent: 33.3333, of: "container", ...none }],
];

export function FirstFrame({ draw }: { draw: (() => void) | undefined }) {
  const { handle, reading } = useWork();
  const { placement } = handle.draft;
  const at = usualAt(placement.parts, handle.part);
  const said = [
    ...Object.values(placement.common ?? {}),
    ...Object.values(partOf(handle.draft, at).treatments ?? {}),
  ].some((own) => own?.width != null);
  if (said || placement.frame != null) return null;
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
      {WIDTHS.map(([label, width]) => (
        <button key={label} type="button" className={classes.pick} onClick={() => take(width)}>
          {label}
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
