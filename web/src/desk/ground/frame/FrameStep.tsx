/** Frame: how big the spot is. Per span a width rule and a height rule; wider spans hand down to narrower ones. */
import { SegmentedControl } from "@mantine/core";
import type { Treatment } from "../../../api/queries";
import { range, size } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import { useDesk } from "../../context";
import { valueAt } from "../../scale";
import { Field } from "../Field";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { SpanHead } from "../OwnValues";
import classes from "./Frame.module.css";
import { NumberField } from "./NumberField";
import { RatioField } from "./RatioField";
import { describeHeight, describeWidth } from "./words";

export type WidthRule = NonNullable<Treatment["width"]>;
export type HeightRule = NonNullable<Treatment["height"]>;

export function FrameStep() {
  const state = useDesk();
  const { reading, span, choose, handle, error } = state;
  const width = span.effective.width as WidthRule;
  const height = span.effective.height as HeightRule;
  const setWidth = (rule: WidthRule) => handle.treat(span.letter, { width: rule }, `width ${span.letter} ${rule.kind}`);
  const setHeight = (rule: HeightRule) =>
    handle.treat(span.letter, { height: rule }, `height ${span.letter} ${rule.kind}`);
  const here = error?.problem.errors?.find((e) => e.field.includes(`treatments.${span.letter}.`));
  const errorFor = (side: string) => (here?.field.includes(`.${side}`) ? here.sentence : undefined);
  return (
    <>
      <div className={ground.column} style={{ flex: "1 1 55%" }}>
        <table className={ground.table}>
          <thead>
            <tr>
              <th>Span</th>
              <th>Width</th>
              <th>Height</th>
              <th className={ground.right}>Frame, narrow end</th>
              <th className={ground.right}>wide end</th>
            </tr>
          </thead>
          <tbody>
            {reading.spans.map((s) => (
              <tr key={s.letter} aria-selected={s.letter === span.letter} data-press onClick={() => choose(s.letter)}>
                <td>
                  <button type="button" className={classes.span} onClick={() => choose(s.letter)}>
                    <Letter of={s.letter} /> {range(s.first, s.last, reading.widest)}
                  </button>
                </td>
                <td className={s.own.includes("width") ? classes.own : "soft"}>
                  {describeWidth(s.effective.width as WidthRule)}
                </td>
                <td className={s.own.includes("height") ? classes.own : "soft"}>
                  {describeHeight(s.effective.height as HeightRule)}
                </td>
                <td className={`${ground.right} num`}>
                  {size(valueAt(s.frame_w, s.first) ?? 0, valueAt(s.frame_h, s.first) ?? 0)}
                </td>
                <td className={`${ground.right} num`}>
                  {size(valueAt(s.frame_w, s.last) ?? 0, valueAt(s.frame_h, s.last) ?? 0)}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className={classes.hint}>
          Bold is a span's own; the rest is handed down from the next wider span.
          {span.viewport_heights &&
            ` Heights in vh are read from ${span.viewport_heights[0]} to ${span.viewport_heights[1]} px of screen.`}
        </p>
        <div className={ground.stack}>
          <Findings of={reading.findings.filter((f) => f.step === "frame")} />
        </div>
      </div>
      <div className={ground.column} style={{ flex: "1 1 45%" }}>
        <SpanHead />
        <Field field="width" label="Width" error={errorFor("width")}>
          <SegmentedControl
            size="xs"
            aria-label="Width rule"
            value={width.kind}
            onChange={(kind) => setWidth(switchWidth(kind as WidthRule["kind"], width))}
            data={[
              { value: "full", label: "full" },
              { value: "share", label: "share" },
              { value: "fixed", label: "fixed" },
              { value: "columns", label: "columns" },
            ]}
          />
          {width.kind === "fixed" && (
            <NumberField
              label="Width"
              unit="px"
              value={width.width_px}
              set={(v) => setWidth({ ...width, width_px: v })}
            />
          )}
          {width.kind === "share" && (
            <NumberField label="Share" unit="%" value={width.percent} set={(v) => setWidth({ ...width, percent: v })} />
          )}
          {width.kind === "columns" && (
            <>
              <NumberField
                label="Columns taken"
                unit="of"
                value={width.take ?? 1}
                set={(v) => setWidth({ ...width, take: v })}
              />
              <NumberField
                label="Columns"
                unit=""
                value={width.columns}
                set={(v) => setWidth({ ...width, columns: v })}
              />
              <NumberField
                label="Gutter"
                unit="px gutter"
                value={width.gutter_px ?? 0}
                set={(v) => setWidth({ ...width, gutter_px: v })}
              />
            </>
          )}
          {(width.kind === "share" || width.kind === "columns") && (
            <SegmentedControl
              size="xs"
              aria-label="Holder"
              value={width.of ?? "page"}
              onChange={(of) => setWidth({ ...width, of: of as "page" | "container" })}
              data={[
                { value: "page", label: "of the page" },
                { value: "container", label: "of the container" },
              ]}
            />
          )}
          <Bounds rule={width} set={setWidth} of="width" />
        </Field>
        <Field field="stands" label="Stands">
          <SegmentedControl
            size="xs"
            aria-label="Where a frame narrower than its holder stands"
            value={span.effective.stands ?? "centre"}
            onChange={(stands) => handle.treat(span.letter, { stands: stands as Treatment["stands"] })}
            data={["start", "centre", "end"]}
          />
        </Field>
        <Field field="height" label="Height" error={errorFor("height")}>
          <SegmentedControl
            size="xs"
            aria-label="Height rule"
            value={height.kind}
            onChange={(kind) =>
              setHeight(switchHeight(kind as HeightRule["kind"], height, valueAt(span.frame_h, span.last) ?? 400))
            }
            data={[
              { value: "ratio", label: "ratio" },
              { value: "fixed", label: "px" },
              { value: "vh", label: "vh" },
              { value: "natural", label: "natural" },
            ]}
          />
          {height.kind === "ratio" && (
            <RatioField w={height.w} h={height.h} set={(r) => setHeight({ ...height, ...r })} />
          )}
          {height.kind === "fixed" && (
            <NumberField
              label="Height"
              unit="px"
              value={height.height_px}
              set={(v) => setHeight({ ...height, height_px: v })}
            />
          )}
          {height.kind === "vh" && (
            <NumberField
              label="Share of the viewport's height"
              unit="vh"
              value={height.percent}
              set={(v) => setHeight({ ...height, percent: v })}
            />
          )}
          {height.kind === "ratio" ? (
            <Bounds rule={height} set={setHeight} of="height" ofScreen={["least_vh", "greatest_vh"]} />
          ) : (
            <Bounds rule={height} set={setHeight} of="height" />
          )}
        </Field>
      </div>
    </>
  );
}

type Bounded = { least_px?: number | null; greatest_px?: number | null };

/** `ofScreen`: the fields of a rule that can be bounded by shares of the viewport's height as well. */
function Bounds<R extends Bounded>({
  rule,
  set,
  of,
  ofScreen = [],
}: {
  rule: R;
  set: (rule: R) => void;
  of: string;
  ofScreen?: [keyof R, keyof R] | [];
}) {
  const field = (name: keyof R, label: string, unit: string, before?: string) => (
    <NumberField
      label={label}
      before={before}
      unit={unit}
      optional
      value={(rule[name] as number | null | undefined) ?? undefined}
      set={(v) => set({ ...rule, [name]: v ?? null })}
    />
  );
  const [least, greatest] = ofScreen;
  return (
    <div className={classes.bounds}>
      <div className={classes.bound}>
        {field("least_px", `Least ${of}`, "px", "at least")}
        {least && field(least, `Least ${of}, share of the viewport's`, "vh", "and")}
      </div>
      <div className={classes.bound}>
        {field("greatest_px", `Greatest ${of}`, "px", "at most")}
        {greatest && field(greatest, `Greatest ${of}, share of the viewport's`, "vh", "and")}
      </div>
    </div>
  );
}

function switchWidth(kind: WidthRule["kind"], before: WidthRule): WidthRule {
  const bounds = { least_px: before.least_px, greatest_px: before.greatest_px };
  const of = "of" in before && before.of ? before.of : "page";
  switch (kind) {
    case "fixed":
      return { kind, width_px: 600, ...bounds };
    case "share":
      return { kind, percent: 50, of, ...bounds };
    case "columns":
      return { kind, columns: 3, take: 1, gutter_px: 20, of: "container", ...bounds };
    default:
      return { kind: "full", ...bounds };
  }
}

function switchHeight(kind: HeightRule["kind"], before: HeightRule, now: number): HeightRule {
  const bounds = { least_px: before.least_px, greatest_px: before.greatest_px };
  switch (kind) {
    case "ratio":
      return { kind, w: 16, h: 9, ...bounds };
    case "fixed":
      return { kind, height_px: Math.round(now), ...bounds };
    case "vh":
      return { kind, percent: 60, ...bounds };
    default:
      return { kind: "natural", ...bounds };
  }
}
