/** Which items are cut in the chosen span, and what holds them all: one ratio for all cells, or those items whole. */
import { Button } from "@mantine/core";
import { plural } from "../../../ui/format";
import { useWork } from "../../context";
import { type Draft, withCommon, withTreatment } from "../../draft";
import aim from "../aim/Aim.module.css";
import ground from "../Ground.module.css";
import { OWN_RATIOS, useGrid } from "./useGrid";

const RATIO = {
  kind: "ratio" as const,
  w: 1,
  h: 1,
  least_px: null,
  greatest_px: null,
  least_vh: null,
  greatest_vh: null,
};
/** Where one ratio for all would cost the pictures more than this on average, those that are cut are better shown whole. */
const MOST_LOSS = 0.4;

export function ItemsAdvice() {
  const { reading, span, handle, choosePart, originals } = useWork();
  const { values } = useGrid();
  const { items } = reading;
  if (!items || !values) return null;
  const here = items.failing.filter((f) => f.last >= span.first && f.first <= span.last);
  const cut = [...new Set(here.flatMap((f) => f.parts))].sort((a, b) => a - b);
  const first = here[0];
  if (!cut.length || !first) return null;
  const named = cut.map((i) => {
    const name = items.items[i]?.name || `item ${i + 1}`;
    return { i, name, thumb: originals.find((o) => o.id === items.items[i]?.original)?.thumb };
  });
  const { ratio } = items;
  const narrower = reading.spans.filter((s) => s.last < span.first).at(-1);
  /** One ratio for all cells of this span; the next narrower one stays as it is. */
  const withCells = (d: Draft, w: number): Draft => {
    const set = withCommon(d, span.letter, { height: { ...RATIO, w } });
    if (!narrower || d.placement.common[narrower.letter]?.height) return set;
    return withCommon(set, narrower.letter, { height: narrower.effective.height });
  };
  const keepsRatio = OWN_RATIOS.includes(values.arranged);
  const helps = !!ratio && !keepsRatio && ratio.cuts.length < cut.length;
  const isGentle = helps && ratio.loss <= MOST_LOSS;
  const cells = (variant: "filled" | "default") =>
    ratio && (
      <Button variant={variant} onClick={() => handle.change((d) => withCells(d, ratio.ratio))}>
        All cells {said(ratio.ratio)}
      </Button>
    );
  return (
    <section className={`${ground.card} ${aim.advice}`} aria-label="Items that are cut">
      <h3>
        {cut.length === first.of ? "All" : cut.length} of {plural(first.of, "item")} {cut.length === 1 ? "is" : "are"}{" "}
        cut from {first.first} px.
      </h3>
      <p>
        {named.slice(0, 6).map(({ i, name }, n) => (
          <span key={i}>
            {n > 0 && ", "}
            <button type="button" className="plain" onClick={() => choosePart(i)}>
              {name}
            </button>
          </span>
        ))}
        {named.length > 6 && ` and ${named.length - 6} more`}
      </p>
      {ratio && !keepsRatio && (
        <p>
          {ratio.cuts.length
            ? `No ratio of cells holds all: ${said(ratio.ratio)} cuts ${plural(ratio.cuts.length, "item")}, and none cuts fewer.`
            : `Cells of ${said(ratio.ratio)} hold all; of those that do they lose least, ${Math.round(ratio.loss * 100)} % on average.`}
        </p>
      )}
      <div className={aim.row}>
        {isGentle && cells("filled")}
        <Button
          variant={isGentle ? "default" : "filled"}
          onClick={() =>
            handle.change((d) => cut.reduce((e, i) => withTreatment(e, i, span.letter, { fit: "contain" }), d))
          }
        >
          Show {cut.length === 1 ? "it" : `these ${cut.length}`} whole
        </Button>
        {helps && !isGentle && cells("default")}
      </div>
    </section>
  );
}

/** A ratio as `1.13 : 1`. */
const said = (ratio: number) => `${Number(ratio.toFixed(2))} : 1`;
