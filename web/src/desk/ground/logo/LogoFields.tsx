/** How a span draws its logo: the box that all cuts have, how large it is drawn in it, and what lies behind it. */
import { Button, SegmentedControl, Switch } from "@mantine/core";
import type { ReactNode } from "react";
import type { LogoValues } from "../../../api/queries";
import { NumberField } from "../../../ui/NumberField";
import { useWork } from "../../context";
import { NO_BACKGROUND } from "../aim/Behind";
import { Field } from "../Field";
import { KindValue } from "../KindValue";
import { useKindValues } from "../useKindValues";
import { ColourInput } from "../words/WordsFields";
import { InPortrait } from "./InPortrait";
import { logoOf } from "./own";

/** `cells`: how high the box is. */
export function LogoFields({ cells }: { cells: ReactNode }) {
  const { values, set } = useKindValues<LogoValues>();
  if (!values) return null;
  return (
    <>
      {cells}
      <KindValue fields={["padding_px", "lies"]} label="In its box">
        <NumberField
          label="Padding"
          before="padding"
          unit="px"
          value={values.padding_px}
          set={(v) => set({ padding_px: v }, "padding")}
        />
        <SegmentedControl
          size="xs"
          aria-label="Alignment in the box"
          value={values.lies}
          onChange={(v) => set({ lies: v as LogoValues["lies"] })}
          data={["start", "centre", "end"]}
        />
      </KindValue>
      <KindValue fields={["drawn"]} label="Size">
        <SegmentedControl
          size="xs"
          aria-label="How large it is drawn"
          value={values.drawn}
          onChange={(v) => set({ drawn: v as LogoValues["drawn"] })}
          data={[
            { value: "fitted", label: "fills the box" },
            { value: "natural", label: "at most its own px" },
          ]}
        />
      </KindValue>
      <InPortrait cuts={values.cuts} />
      <Behind bar={values.bar} setBar={(bar) => set({ bar })} />
    </>
  );
}

function Behind({ bar, setBar }: { bar: boolean; setBar: (bar: boolean) => void }) {
  const { span, handle, reading } = useWork();
  const { background, original } = span.effective;
  const edge = original === null ? undefined : logoOf(reading)?.edges[original];
  const colour = (to: string) => handle.treat(span.letter, { background: to }, `background ${span.letter}`);
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
        <Switch
          size="xs"
          label="from edge to edge of the page"
          checked={bar}
          onChange={(e) => setBar(e.currentTarget.checked)}
        />
      </KindValue>
    </>
  );
}
