import { SegmentedControl } from "@mantine/core";
import { NumberField } from "../../../ui/NumberField";
import { Bounds } from "./Bounds";
import { firstWidth, useSwitch, type WidthRule } from "./rules";

interface Props {
  rule: WidthRule;
  set: (rule: WidthRule) => void;
}

/** The kind of width rule, its numbers, its bounds. */
export function WidthField({ rule, set }: Props) {
  const { to, refused } = useSwitch((kind) => firstWidth(kind, rule), set);
  return (
    <>
      {refused && <p role="alert">{refused}</p>}
      <SegmentedControl
        size="xs"
        aria-label="Width rule"
        value={rule.kind}
        onChange={to}
        data={[
          { value: "full", label: "full" },
          { value: "share", label: "share" },
          { value: "fixed", label: "fixed" },
          { value: "columns", label: "columns" },
          { value: "percent-columns", label: "% columns" },
        ]}
      />
      {rule.kind === "full" && (
        <NumberField
          label="Margin on both sides"
          before="less"
          unit="px on both sides"
          value={rule.margin_px}
          set={(v) => set({ ...rule, margin_px: v })}
        />
      )}
      {rule.kind === "fixed" && (
        <NumberField
          label="Width"
          unit="px"
          value={rule.width_px}
          set={(v) => set({ ...rule, width_px: v })}
        />
      )}
      {rule.kind === "share" && (
        <NumberField
          label="Share"
          unit="%"
          value={rule.percent}
          set={(v) => set({ ...rule, percent: v })}
        />
      )}
      {rule.kind === "columns" && (
        <>
          <NumberField
            label="Columns taken"
            unit="of"
            value={rule.take}
            set={(v) => set({ ...rule, take: v })}
          />
          <NumberField
            label="Columns"
            unit=""
            value={rule.columns}
            set={(v) => set({ ...rule, columns: v })}
          />
          <NumberField
            label="Gutter"
            unit="px gutter"
            value={rule.gutter_px}
            set={(v) => set({ ...rule, gutter_px: v })}
          />
        </>
      )}
      {rule.kind === "percent-columns" && (
        <>
          <NumberField
            label="Columns across"
            unit="across"
            value={rule.columns}
            set={(v) => set({ ...rule, columns: v })}
          />
          <NumberField
            label="Width of each column, empty for what the row leaves"
            before="width"
            unit="%"
            optional
            value={rule.percent ?? undefined}
            set={(v) => set({ ...rule, percent: v ?? null })}
          />
          <NumberField
            label="Padding on both sides"
            before="padding"
            unit="%"
            value={rule.padding_percent}
            set={(v) => set({ ...rule, padding_percent: v })}
          />
          <SegmentedControl
            size="xs"
            aria-label="Whether the padding comes on top of the width or is part of it"
            value={rule.box}
            onChange={(box) => set({ ...rule, box: box as "content-box" | "border-box" })}
            data={[
              { value: "content-box", label: "on top (content-box)" },
              { value: "border-box", label: "inside (border-box)" },
            ]}
          />
        </>
      )}
      {(rule.kind === "share" || rule.kind === "columns" || rule.kind === "percent-columns") && (
        <SegmentedControl
          size="xs"
          aria-label="Holder"
          value={rule.of}
          onChange={(of) => set({ ...rule, of: of as "page" | "container" })}
          data={[
            { value: "page", label: "of the page" },
            { value: "container", label: "of the container" },
          ]}
        />
      )}
      <Bounds rule={rule} set={set} of="width" />
    </>
  );
}
