/**
 * Frame: how big the spot is. Per span a width rule and a height rule; wider spans hand down to
 * narrower ones.
 */
import { SegmentedControl } from "@mantine/core";
import { useSessionStorage } from "@mantine/hooks";
import type { ReactNode } from "react";
import type { Treatment } from "../../../api/queries";
import { plural } from "../../../ui/format";
import { later } from "../../../ui/later";
import { useWork } from "../../context";
import { partOf } from "../../draft";
import { FIELDS } from "../../kinds/fields";
import { usualAt } from "../../parts";
import { valueAt } from "../../scale";
import { Told } from "../../Told";
import { Field } from "../Field";
import { Findings } from "../Findings";
import ground from "../Ground.module.css";
import { SpanHead } from "../OwnValues";
import stage from "../stage/Stage.module.css";
import classes from "./Frame.module.css";
import { HeightField } from "./HeightField";
import { KindField } from "./KindField";
import { NamedFrameField } from "./NamedFrameField";
import { Placeholders } from "./Placeholders";
import type { HeightRule, WidthRule } from "./rules";
import { SetField } from "./SetField";
import { SpanTable } from "./SpanTable";
import { WidthField } from "./WidthField";
import { WidthSums } from "./WidthSums";

export function FrameStep() {
  const { handle, choosePart } = useWork();
  const { role, of } = partOf(handle.draft, handle.part);
  if (!role && of == null) return <OfFrame />;
  const usual = usualAt(handle.draft.placement.parts, handle.part);
  return (
    <div className={ground.column}>
      <p>
        {role
          ? `The size and the place of the ${role} are set in Words.`
          : "What stands in for a picture has its frame."}{" "}
        <button type="button" className="plain" onClick={() => choosePart(role ? 0 : usual)}>
          the picture's frame
        </button>
      </p>
    </div>
  );
}

const FrameStage = later(() => import("../stage/FrameStage").then((m) => m.FrameStage));

/** The stage, and a press away the table of all spans with what is said of them. */
function Left({ children }: { children: ReactNode }) {
  const { reading, handle } = useWork();
  const { kind } = handle.draft.placement;
  const [left, setLeft] = useSessionStorage<"stage" | "table">({
    key: `frame-left-${kind}`,
    defaultValue: "table",
    getInitialValueInEffect: false,
  });
  const found = reading.findings.filter((f) => f.step === "frame").length;
  const bar = (
    <>
      <SegmentedControl
        size="xs"
        aria-label="What stands here"
        value={left}
        onChange={(value) => setLeft(value as typeof left)}
        data={[
          { value: "stage", label: "stage" },
          { value: "table", label: "table of spans" },
        ]}
      />
      {left === "stage" && found > 0 && (
        <button type="button" className="plain" onClick={() => setLeft("table")}>
          {plural(found, "finding")}
        </button>
      )}
    </>
  );
  return (
    <div className={stage.left}>
      {left === "stage" ? (
        <FrameStage bar={bar} />
      ) : (
        <>
          <div className={ground.column} style={{ flex: 1 }}>
            {children}
          </div>
          <div className={stage.bar} data-table>
            {bar}
          </div>
        </>
      )}
    </div>
  );
}

function OfFrame() {
  const { reading, span, handle, error } = useWork();
  const { width, stands } = span.effective;
  const kind = FIELDS[handle.draft.placement.kind];
  const setWidth = (rule: WidthRule) =>
    handle.treat(span.letter, { width: rule }, `width ${span.letter} ${rule.kind}`);
  const setHeight = (rule: HeightRule) =>
    handle.treat(span.letter, { height: rule }, `height ${span.letter} ${rule.kind}`);
  const peak = reading.bands.find((b) => b.kind === "frame")?.peak;
  const here = error?.problem.errors?.find((e) => e.field.includes(`treatments.${span.letter}.`));
  const errorFor = (side: string) => (here?.field.includes(`.${side}`) ? here.sentence : undefined);
  const rule = span.effective.height;
  const height = (
    <Field field="height" label={kind?.height ?? "Height"} error={errorFor("height")}>
      <HeightField rule={rule} now={valueAt(span.frame_h, span.last) ?? 400} set={setHeight} />
    </Field>
  );
  return (
    <>
      <Left>
        {kind?.Beside && <kind.Beside />}
        <SpanTable />
        <p className={classes.hint}>
          Bold is a span's own; the rest is handed down from the next wider span.
          {span.viewport_heights &&
            ` Heights in vh are read from ${span.viewport_heights[0]} to ${span.viewport_heights[1]} px of screen.`}
          {peak &&
            ` The frame is widest, ${Math.round(peak[1] * 100) / 100} px, at ${peak[0]} px of page.`}
        </p>
        <Told>
          <WidthSums />
          {reading.items?.largest && <p className={classes.hint}>{reading.items.largest}</p>}
        </Told>
        <Placeholders />
        <div className={ground.stack}>
          <Told>
            <Findings of={reading.findings.filter((f) => f.step === "frame")} />
          </Told>
        </div>
      </Left>
      <div className={ground.column} style={{ flex: "1 1 45%" }}>
        <SpanHead />
        <KindField />
        {kind ? <kind.Fields cells={height} /> : <NamedFrameField />}
        {!kind && <SetField />}
        <Field field="width" label="Width" error={errorFor("width")}>
          <WidthField rule={width} set={setWidth} />
        </Field>
        <Field field="stands" label="Stands">
          <SegmentedControl
            size="xs"
            aria-label="Where a frame narrower than its holder stands"
            value={stands}
            onChange={(side) => handle.treat(span.letter, { stands: side as Treatment["stands"] })}
            data={["start", "centre", "end"]}
          />
        </Field>
        {kind ? <SetField /> : height}
      </div>
    </>
  );
}
