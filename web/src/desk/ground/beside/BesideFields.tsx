/** How a span puts pictures and their texts side by side, or one above the other. */
import { SegmentedControl } from "@mantine/core";
import type { ReactNode } from "react";
import type { BesideValues } from "../../../api/queries";
import { NumberField } from "../../../ui/NumberField";
import { KindValue } from "../KindValue";
import classes from "../slides/Slides.module.css";
import { useKindValues } from "../useKindValues";

const SHARES = [25, 50, 100];

/** `cells`: how high pictures are. */
export function BesideFields({ cells }: { cells: ReactNode }) {
  const { values, set, told } = useKindValues<BesideValues>();
  if (!values) return null;
  const stacked = values.share_percent >= 100;
  return (
    <>
      <KindValue fields={["share_percent"]} label="Picture">
        <NumberField
          label="The picture's share of the row"
          unit="% of the row"
          value={values.share_percent}
          set={(v) => set({ share_percent: v }, "share")}
        />
        <SegmentedControl
          size="xs"
          aria-label="Usual shares of the row"
          value={SHARES.includes(values.share_percent) ? String(values.share_percent) : ""}
          onChange={(v) => set({ share_percent: Number(v) })}
          data={SHARES.map((s) => ({ value: String(s), label: `${s} %` }))}
        />
      </KindValue>
      {stacked ? (
        <KindValue fields={["stacked"]} label="Stacked">
          <SegmentedControl
            size="xs"
            aria-label="Where the picture is stacked"
            value={values.stacked}
            onChange={(v) => set({ stacked: v as BesideValues["stacked"] })}
            data={[
              { value: "above", label: "picture above" },
              { value: "below", label: "text above" },
            ]}
          />
        </KindValue>
      ) : (
        <KindValue fields={["side", "align"]} label="Side">
          <SegmentedControl
            size="xs"
            aria-label="Side of the picture"
            value={values.side}
            onChange={(v) => set({ side: v as BesideValues["side"] })}
            data={[
              { value: "start", label: "picture left" },
              { value: "end", label: "right" },
              { value: "alternate", label: "in turn" },
            ]}
          />
          <SegmentedControl
            size="xs"
            aria-label="Where the lower of both stands"
            value={values.align}
            onChange={(v) => set({ align: v as BesideValues["align"] })}
            data={[
              { value: "start", label: "top" },
              { value: "centre", label: "middle" },
              { value: "end", label: "bottom" },
            ]}
          />
        </KindValue>
      )}
      {cells}
      <KindValue fields={["columns", "gutter_px"]} label="In a row">
        <NumberField
          label="How many in a row"
          unit="in a row"
          value={values.columns}
          set={(v) => set({ columns: Math.round(v) }, "columns")}
        />
        <NumberField
          label="Gutter"
          before="gutter"
          unit="px"
          value={values.gutter_px}
          set={(v) => set({ gutter_px: v }, "gutter")}
        />
      </KindValue>
      <KindValue fields={["between_px", "margin_px"]} label="Room">
        <NumberField
          label="Room between picture and text"
          before="between"
          unit="px"
          value={values.between_px}
          set={(v) => set({ between_px: v }, "between")}
        />
        <NumberField
          label="Outer margin"
          before="around"
          unit="px"
          value={values.margin_px}
          set={(v) => set({ margin_px: v }, "margin")}
        />
      </KindValue>
      <div className={classes.told}>
        {told.map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
      </div>
    </>
  );
}
