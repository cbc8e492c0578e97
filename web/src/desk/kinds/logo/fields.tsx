/**
 * How a span draws its logo: the box that all cuts have, how large it is drawn in it, and what lies
 * behind it.
 */
import { Button, SegmentedControl } from "@mantine/core";
import type { ReactNode } from "react";
import type { LogoValues } from "../../../api/queries";
import { useWork } from "../../context";
import { NO_BACKGROUND } from "../../ground/aim/Behind";
import { Field } from "../../ground/Field";
import { KindChoice, KindNumber, KindSwitch } from "../../ground/KindRows";
import { KindValue } from "../../ground/KindValue";
import { useKindValues } from "../../ground/useKindValues";
import { ColourInput } from "../../ground/words/WordsFields";
import type { Fields } from "../fields";
import { Instead } from "./Instead";
import { LogoCuts } from "./LogoCuts";
import { logoOf } from "./own";

/** `cells`: how high the box is. */
function LogoFields({ cells }: { cells: ReactNode }) {
  const { values } = useKindValues<LogoValues>();
  if (!values) return null;
  return (
    <>
      {cells}
      <KindValue fields={["padding_px", "lies"]} label="In its box">
        <KindNumber field="padding_px" label="Padding" before="padding" />
        <KindChoice field="lies" label="Alignment in the box" />
      </KindValue>
      <KindValue fields={["drawn"]} label="Size">
        <KindChoice
          field="drawn"
          label="How large it is drawn"
          words={{ fitted: "fills the box", natural: "at most its own px" }}
        />
      </KindValue>
      <Instead cuts={values.cuts} />
      <Behind />
    </>
  );
}

function Behind() {
  const { span, handle, reading } = useWork();
  const { background, original } = span.effective;
  const edge = original === null ? undefined : logoOf(reading)?.edges[original];
  const colour = (to: string) =>
    handle.treat(span.letter, { background: to }, `background ${span.letter}`);
  return (
    <>
      <Field field="background" label="Behind it">
        <SegmentedControl
          size="xs"
          aria-label="What lies behind the logo"
          value={background === NO_BACKGROUND ? NO_BACKGROUND : "colour"}
          onChange={(v) => colour(v === NO_BACKGROUND ? v : (edge ?? "#ffffff"))}
          data={[
            { value: "colour", label: "a colour" },
            { value: NO_BACKGROUND, label: "nothing" },
          ]}
        />
        {background !== NO_BACKGROUND && (
          <>
            <ColourInput label="Colour behind the logo" value={background} set={colour} />
            <code>{background}</code>
          </>
        )}
        {edge && edge !== background && (
          <Button size="compact-xs" variant="default" onClick={() => colour(edge)}>
            {edge}, the logo's own edge
          </Button>
        )}
      </Field>
      <KindValue fields={["bar"]} label="Bar">
        <KindSwitch field="bar" says="from edge to edge of the page" />
      </KindValue>
    </>
  );
}

export default {
  Fields: LogoFields,
  height: "Box height",
  whole: true,
  ownInstead: true,
  Beside: LogoCuts,
} satisfies Fields;
