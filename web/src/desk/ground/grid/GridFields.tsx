/** How a span arranges its items: columns, gutter, padding, and what shows at first. */
import { SegmentedControl, Select, TextInput } from "@mantine/core";
import type { ReactNode } from "react";
import type { GridValues } from "../../../api/queries";
import { NumberField } from "../../../ui/NumberField";
import { KindValue } from "../KindValue";
import { useKindValues } from "../useKindValues";

const ARRANGED: { value: GridValues["arranged"]; label: string }[] = [
  { value: "cells", label: "cells of one size" },
  { value: "justified", label: "own ratios, in rows" },
  { value: "masonry", label: "own ratios, in columns" },
  { value: "rows", label: "a row each, caption beside" },
  { value: "list", label: "one under the other" },
  { value: "slides", label: "side by side, turned" },
  { value: "pages", label: "on pages, turned" },
  { value: "hidden", label: "not shown here" },
];
/** Arrangements in which each picture keeps its own ratio. */
const OWN_RATIOS = ["justified", "masonry"];
const WITHOUT_COLUMNS = ["rows", "list", "hidden"];
const TURNED = ["slides", "pages"];

/** `cells`: how high cells are, beside how many there are. */
export function GridFields({ cells }: { cells: ReactNode }) {
  const { values, set } = useKindValues<GridValues>();
  if (!values) return null;
  const { arranged } = values;
  const inPercent = values.padding_percent > 0;
  const px = (field: "gutter_px" | "margin_px", label: string, before?: string) => (
    <NumberField
      label={label}
      before={before}
      unit="px"
      value={values[field]}
      set={(v) => set({ [field]: v }, field)}
    />
  );
  return (
    <>
      <KindValue fields={["arranged"]} label="Arranged">
        <Select
          size="xs"
          w={210}
          aria-label="How the items are arranged"
          data={ARRANGED}
          value={arranged}
          allowDeselect={false}
          onChange={(v) => v && set({ arranged: v as GridValues["arranged"] })}
        />
      </KindValue>
      {arranged !== "hidden" && (
        <>
          {!WITHOUT_COLUMNS.includes(arranged) && (
            <KindValue fields={["columns", "page_of"]} label="Columns">
              <NumberField
                label="Columns"
                before={arranged === "justified" ? "about" : undefined}
                unit="across"
                value={values.columns}
                set={(v) => set({ columns: Math.round(v) }, "columns")}
              />
              {arranged === "pages" && (
                <NumberField
                  label="Items on a page"
                  unit="a page"
                  value={values.page_of}
                  set={(v) => set({ page_of: Math.round(v) }, "page of")}
                />
              )}
            </KindValue>
          )}
          {arranged === "rows" && (
            <KindValue fields={["share_percent"]} label="Picture">
              <NumberField
                label="The picture's share of the row"
                unit="% of the row"
                value={values.share_percent}
                set={(v) => set({ share_percent: v }, "share")}
              />
            </KindValue>
          )}
          {!OWN_RATIOS.includes(arranged) && cells}
          <KindValue fields={["gutter_px"]} label="Gutter">
            {px("gutter_px", "Gutter")}
          </KindValue>
          <KindValue fields={["padding_px", "padding_percent"]} label="In each cell">
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
              onChange={(v) => set(v === "px" ? { padding_percent: 0 } : { padding_percent: 1, padding_px: 0 })}
              data={[
                { value: "px", label: "px" },
                { value: "percent", label: "% of the width" },
              ]}
            />
          </KindValue>
          <KindValue fields={["margin_px"]} label="Around all">
            {px("margin_px", "Outer margin", "margin")}
          </KindValue>
          {!TURNED.includes(arranged) && (
            <KindValue fields={["first", "more"]} label="At first">
              <NumberField
                label="How many show at first, 0 for all"
                unit={values.first ? "items, then" : "all"}
                value={values.first}
                set={(v) => set({ first: Math.round(v) }, "first")}
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
            </KindValue>
          )}
        </>
      )}
    </>
  );
}
