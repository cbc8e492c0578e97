/** How a span shows its slides: how many at a time, how they change, by themselves or not, and what controls them. */
import { Button, SegmentedControl, Select, Switch } from "@mantine/core";
import type { ReactNode } from "react";
import type { SlidesValues } from "../../../api/queries";
import { NumberField } from "../../../ui/NumberField";
import { useWork } from "../../context";
import { setGuides, useGuides } from "../../guides";
import { KindValue } from "../KindValue";
import { useKindValues } from "../useKindValues";
import { PlaceField } from "../words/PlaceField";
import classes from "./Slides.module.css";

const CHANGES: { value: SlidesValues["change"]; label: string }[] = [
  { value: "slide", label: "slide along" },
  { value: "fade", label: "cross-fade" },
  { value: "zoom", label: "zoom" },
  { value: "none", label: "at once" },
];

/** `cells`: how high slides are. */
export function SlidesFields({ cells }: { cells: ReactNode }) {
  const { values, set, told, problem } = useKindValues<SlidesValues>();
  const { moving } = useGuides();
  if (!values) return null;
  const together = problem("");
  return (
    <>
      {cells}
      <KindValue fields={["at_a_time", "gutter_px"]} label="Shows">
        <NumberField
          label="Slides at a time"
          unit="at a time"
          value={values.at_a_time}
          set={(v) => set({ at_a_time: Math.round(v) }, "at a time")}
        />
        {values.at_a_time > 1 && (
          <NumberField
            label="Gutter"
            before="gutter"
            unit="px"
            value={values.gutter_px}
            set={(v) => set({ gutter_px: v }, "gutter")}
          />
        )}
      </KindValue>
      <KindValue fields={["change", "change_s"]} label="Change">
        <Select
          size="xs"
          w={120}
          aria-label="How slides change"
          data={CHANGES}
          value={values.change}
          allowDeselect={false}
          onChange={(v) => v && set({ change: v as SlidesValues["change"] })}
        />
        {values.change !== "none" && (
          <NumberField
            label="Time of a change"
            before="in"
            unit="s"
            value={values.change_s}
            set={(v) => set({ change_s: v }, "change time")}
          />
        )}
      </KindValue>
      {together && (
        <p role="alert" className={classes.problem}>
          {together}
        </p>
      )}
      <KindValue fields={["by_itself", "every_s", "loop"]} label="Moves">
        <Switch
          size="xs"
          label="by itself"
          checked={values.by_itself}
          onChange={(e) => set({ by_itself: e.currentTarget.checked })}
        />
        {values.by_itself && (
          <NumberField
            label="Time from one change to the next"
            before="every"
            unit="s"
            value={values.every_s}
            set={(v) => set({ every_s: v }, "every")}
          />
        )}
        <Switch
          size="xs"
          label="loops"
          checked={values.loop}
          onChange={(e) => set({ loop: e.currentTarget.checked })}
        />
      </KindValue>
      <KindValue fields={["swipe"]} label="Swipe">
        <Switch
          size="xs"
          label="can be swiped"
          checked={values.swipe}
          onChange={(e) => set({ swipe: e.currentTarget.checked })}
        />
      </KindValue>
      <KindValue fields={["controls", "controls_lie", "controls_place"]} label="Controls">
        <SegmentedControl
          size="xs"
          aria-label="Controls"
          value={values.controls}
          onChange={(v) => set({ controls: v as SlidesValues["controls"] })}
          data={["dots", "numbers", "arrows", "none"]}
        />
        {(values.controls !== "none" || values.by_itself) && (
          <>
            <SegmentedControl
              size="xs"
              aria-label="Where controls are"
              value={values.controls_lie}
              onChange={(v) => set({ controls_lie: v as SlidesValues["controls_lie"] })}
              data={[
                { value: "on", label: "on the picture" },
                { value: "under", label: "under it" },
              ]}
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
        {told.map((sentence) => (
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
