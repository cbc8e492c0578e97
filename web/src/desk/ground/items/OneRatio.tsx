/**
 * Which pictures are out of line with the others, and all of them cropped to one ratio with their
 * keep areas.
 */
import { Button } from "@mantine/core";
import { percent, plural } from "../../../ui/format";
import { useWork } from "../../context";
import { withTreatment } from "../../draft";
import aim from "../aim/Aim.module.css";
import ground from "../Ground.module.css";

/** A ratio as `1.13 : 1`. */
export const said = (ratio: number) => `${Number(ratio.toFixed(2))} : 1`;

/** More names than this are counted. */
const NAMED = 4;

export function OneRatio() {
  const { reading, span, handle, choosePart } = useWork();
  const { items } = reading;
  const ratio = items?.ratio;
  if (!items || ratio?.letter !== span.letter || !ratio.unlike.length) return null;
  const crops = Object.entries(ratio.crops).flatMap(([i, crop]) =>
    crop ? [[Number(i), crop] as const] : [],
  );
  const cannot = Object.keys(ratio.crops).length - crops.length;
  return (
    <section className={`${ground.card} ${aim.advice}`} aria-label="One ratio for all">
      <h3>
        {plural(ratio.unlike.length, items.one)} of {items.items.length}{" "}
        {ratio.unlike.length === 1 ? "is" : "are"} out of line.
      </h3>
      <p>
        {2 * ratio.unlike.length < items.items.length
          ? `Most are ${said(ratio.most)}`
          : `No ratio is that of most; ${said(ratio.most)} is the commonest, of ${items.items.length - ratio.unlike.length}`}
        ;{" "}
        {ratio.unlike.slice(0, NAMED).map((i, n) => (
          <span key={i}>
            {n > 0 && ", "}
            <button type="button" className="plain" onClick={() => choosePart(i)}>
              {items.items[i]?.name || `${items.one} ${i + 1}`}
            </button>
          </span>
        ))}
        {ratio.unlike.length > NAMED && ` and ${ratio.unlike.length - NAMED} more`}{" "}
        {ratio.unlike.length === 1 ? "is" : "are"} not. {said(ratio.ratio)} loses least over all,{" "}
        {percent(ratio.loss)} on average.
        {cannot > 0 && ` The keep areas of ${plural(cannot, items.one)} do not fit in it.`}
      </p>
      <div className={aim.row}>
        <Button
          variant="default"
          onClick={() =>
            handle.change((d) =>
              crops.reduce((e, [i, crop]) => withTreatment(e, i, span.letter, { crop }), d),
            )
          }
        >
          Crop {cannot ? crops.length : "all"} to {said(ratio.ratio)}, keep areas in
        </Button>
      </div>
    </section>
  );
}
