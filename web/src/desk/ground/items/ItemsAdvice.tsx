/**
 * Which items are cut in the chosen span, and what holds them all: one ratio for all cells, or
 * those items whole.
 */
import { Button } from "@mantine/core";
import { plural } from "../../../ui/format";
import { useWork } from "../../context";
import { withCommon, withTreatment } from "../../draft";
import { followers } from "../../remedy";
import aim from "../aim/Aim.module.css";
import ground from "../Ground.module.css";
import { said } from "./OneRatio";

export function ItemsAdvice() {
  const { reading, span, handle, choosePart, originals } = useWork();
  const { items } = reading;
  if (!items) return null;
  const here = items.failing.filter((f) => f.last >= span.first && f.first <= span.last);
  const cut = [...new Set(here.flatMap((f) => f.parts))].sort((a, b) => a - b);
  const first = here[0];
  if (!cut.length || !first) return null;
  const named = cut.map((i) => {
    const name = items.items[i]?.name || `${items.one} ${i + 1}`;
    return { i, name, thumb: originals.find((o) => o.id === items.items[i]?.original)?.thumb };
  });
  // of another span until its own is here
  const ratio = items.ratio?.letter === span.letter ? items.ratio : undefined;
  const isGentle = !!ratio?.gentle;
  const helps = isGentle || (!!ratio && ratio.cuts.length < cut.length);
  const cells = (variant: "filled" | "default") =>
    ratio && (
      <Button
        variant={variant}
        onClick={() => handle.change((d) => withCommon(d, span.letter, { height: ratio.height }))}
      >
        All {items.one}s {said(ratio.ratio)}
      </Button>
    );
  return (
    <section className={`${ground.card} ${aim.advice}`} aria-label="Items that are cut">
      <h3>
        {cut.length === first.of ? "All" : cut.length} of {plural(first.of, items.one)}{" "}
        {cut.length === 1 ? "is" : "are"} cut from {first.first} px.
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
      {ratio && (
        <p>
          {ratio.cuts.length
            ? `No one ratio holds all: ${said(ratio.ratio)} cuts ${plural(ratio.cuts.length, items.one)}, and none cuts fewer.`
            : `${said(ratio.ratio)} holds all; of the ratios that do it loses least, ${Math.round(ratio.loss * 100)} % on average.`}{" "}
          {followers(ratio)}
        </p>
      )}
      <div className={aim.row}>
        {isGentle && cells("filled")}
        <Button
          variant={isGentle ? "default" : "filled"}
          onClick={() =>
            handle.change((d) =>
              cut.reduce((e, i) => withTreatment(e, i, span.letter, { fit: "contain" }), d),
            )
          }
        >
          Show {cut.length === 1 ? "it" : `these ${cut.length}`} whole
        </Button>
        {helps && !isGentle && cells("default")}
      </div>
    </section>
  );
}
