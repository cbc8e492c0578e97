/** How a span arranges its items: columns, gutter, padding, and what shows at first. */
import { SegmentedControl, TextInput } from "@mantine/core";
import type { ReactNode } from "react";
import type { GridValues } from "../../../api/queries";
import { NumberField } from "../../../ui/NumberField";
import { KindChoice, KindNumber } from "../../ground/KindRows";
import { KindValue } from "../../ground/KindValue";
import { useKindValues } from "../../ground/useKindValues";
import type { Fields } from "../fields";

const ARRANGED: Record<GridValues["arranged"], string> = {
  cells: "cells of one size",
  justified: "own ratios, in rows",
  masonry: "own ratios, in columns",
  rows: "a row each, caption beside",
  list: "one under the other",
  slides: "side by side, turned",
  pages: "on pages, turned",
  hidden: "not shown here",
};
/** Arrangements in which each picture keeps its own ratio. */
const OWN_RATIOS = ["justified", "masonry"];
const WITHOUT_COLUMNS = ["rows", "list", "hidden"];
const TURNED = ["slides", "pages"];

/** `cells`: how high cells are, beside how many there are. */
function GridFields({ cells }: { cells: ReactNode }) {
  const { values } = useKindValues<GridValues>();
  if (!values) return null;
  const { arranged } = values;
  return (
    <>
      <KindValue fields={["arranged"]} label="Arranged">
        <KindChoice field="arranged" label="How the items are arranged" words={ARRANGED} />
      </KindValue>
      {arranged !== "hidden" && (
        <>
          {!WITHOUT_COLUMNS.includes(arranged) && (
            <KindValue fields={["columns", "page_of"]} label="Columns">
              <KindNumber
                field="columns"
                before={arranged === "justified" ? "about" : undefined}
                unit="across"
              />
              {arranged === "pages" && <KindNumber field="page_of" unit="a page" />}
            </KindValue>
          )}
          {arranged === "rows" && (
            <KindValue fields={["share_percent"]} label="Picture">
              <KindNumber
                field="share_percent"
                label="The picture's share of the row"
                unit="% of the row"
              />
            </KindValue>
          )}
          {!OWN_RATIOS.includes(arranged) && cells}
          <KindValue fields={["gutter_px"]} label="Gutter">
            <KindNumber field="gutter_px" />
          </KindValue>
          <KindValue fields={["padding_px", "padding_percent"]} label="In each cell">
            <Padding />
          </KindValue>
          <KindValue fields={["margin_px"]} label="Around all">
            <KindNumber field="margin_px" before="margin" />
          </KindValue>
          {!TURNED.includes(arranged) && (
            <KindValue fields={["first", "more"]} label="At first">
              <AtFirst />
            </KindValue>
          )}
        </>
      )}
    </>
  );
}

/** In px, or as a share of the width. */
function Padding() {
  const { values, set } = useKindValues<GridValues>();
  if (!values) return null;
  const inPercent = values.padding_percent > 0;
  return (
    <>
      <NumberField
        label="Padding of cells"
        before="padding"
        unit=""
        value={inPercent ? values.padding_percent : values.padding_px}
        set={(v) => set(inPercent ? { padding_percent: v } : { padding_px: v }, "padding")}
      />
      <SegmentedControl
        size="xs"
        aria-label="Unit of the padding"
        value={inPercent ? "percent" : "px"}
        onChange={(v) =>
          set(v === "px" ? { padding_percent: 0 } : { padding_percent: 1, padding_px: 0 })
        }
        data={[
          { value: "px", label: "px" },
          { value: "percent", label: "% of the width" },
        ]}
      />
    </>
  );
}

function AtFirst() {
  const { values, set } = useKindValues<GridValues>();
  if (!values) return null;
  return (
    <>
      <KindNumber
        field="first"
        label="How many show at first, 0 for all"
        unit={values.first ? "items, then" : "all"}
      />
      {values.first > 0 && (
        <TextInput
          size="xs"
          w={130}
          aria-label="Words for more"
          value={values.more}
          onChange={(e) => set({ more: e.currentTarget.value }, "more")}
        />
      )}
    </>
  );
}

export default { Fields: GridFields, height: "Cell height" } satisfies Fields;
