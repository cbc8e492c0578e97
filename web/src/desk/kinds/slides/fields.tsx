/**
 * How a span shows its slides: how many at a time, how they change, by themselves or not, and what
 * controls them.
 */
import { Button, Switch } from "@mantine/core";
import type { ReactNode } from "react";
import type { SlidesValues } from "../../../api/queries";
import { useWork } from "../../context";
import { KindChoice, KindNumber, KindSwitch } from "../../ground/KindRows";
import { KindValue } from "../../ground/KindValue";
import { useKindValues } from "../../ground/useKindValues";
import { PlaceField } from "../../ground/words/PlaceField";
import { setGuides, useGuides } from "../../guides";
import type { Fields } from "../fields";
import classes from "../Kinds.module.css";

const CHANGES: Record<SlidesValues["change"], string> = {
  slide: "slide along",
  fade: "cross-fade",
  zoom: "zoom",
  none: "at once",
};

/** `cells`: how high slides are. */
function SlidesFields({ cells }: { cells: ReactNode }) {
  const { values, set, notes, problem } = useKindValues<SlidesValues>();
  const { moving } = useGuides();
  if (!values) return null;
  const together = problem("");
  return (
    <>
      {cells}
      <KindValue fields={["at_a_time", "gutter_px"]} label="Shows">
        <KindNumber field="at_a_time" label="Slides at a time" unit="at a time" />
        {values.at_a_time > 1 && <KindNumber field="gutter_px" before="gutter" />}
      </KindValue>
      <KindValue fields={["change", "change_s"]} label="Change">
        <KindChoice field="change" label="How slides change" words={CHANGES} listed w={120} />
        {values.change !== "none" && (
          <KindNumber field="change_s" label="Time of a change" before="in" />
        )}
      </KindValue>
      {together && (
        <p role="alert" className={classes.problem}>
          {together}
        </p>
      )}
      <KindValue fields={["by_itself", "every_s", "loop"]} label="Moves">
        <KindSwitch field="by_itself" says="by itself" />
        {values.by_itself && (
          <KindNumber field="every_s" label="Time from one change to the next" before="every" />
        )}
        <KindSwitch field="loop" says="loops" />
      </KindValue>
      <KindValue fields={["swipe"]} label="Swipe">
        <KindSwitch field="swipe" says="can be swiped" />
      </KindValue>
      <KindValue fields={["controls", "controls_lie", "controls_place"]} label="Controls">
        <KindChoice field="controls" label="Controls" />
        {(values.controls !== "none" || values.by_itself) && (
          <>
            <KindChoice
              field="controls_lie"
              label="Where controls are"
              words={{ on: "on the picture", under: "under it" }}
            />
            <PlaceField
              label="Place of the controls"
              place={values.controls_place}
              set={(place) => set({ controls_place: place })}
            />
          </>
        )}
      </KindValue>
      <div className={classes.told}>
        {notes.map((sentence) => (
          <p key={sentence}>{sentence}</p>
        ))}
        <Greatest />
        <Switch
          size="xs"
          label="let the panes move"
          checked={moving}
          onChange={(e) => setGuides({ moving: e.currentTarget.checked })}
        />
      </div>
    </>
  );
}

/** The greatest width at which no slide is soft, to be taken with one press. */
function Greatest() {
  const { reading, handle, span } = useWork();
  const found = reading.items?.sharpest;
  if (!found) return null;
  const [widthPx, density, part, ownPx] = found;
  const name = reading.items?.items[part]?.name ?? `slide ${part + 1}`;
  const { width } = span.effective;
  const taken = "greatest_px" in width && width.greatest_px === widthPx;
  return (
    <p>
      Up to {widthPx} px wide no slide is soft at {density}x: {name} has {ownPx} px.{" "}
      {!taken && (
        <Button
          size="compact-xs"
          variant="default"
          onClick={() => handle.treat(span.letter, { width: { ...width, greatest_px: widthPx } })}
        >
          At most {widthPx} px, centred beyond
        </Button>
      )}
    </p>
  );
}

export default { Fields: SlidesFields, height: "Slide height" } satisfies Fields;
