/** How the words stand in the chosen span. */
import { SegmentedControl } from "@mantine/core";
import type { BannerValues } from "../../../api/queries";
import { NumberField } from "../../../ui/NumberField";
import { useDesk } from "../../context";
import { valueAt } from "../../scale";
import { KindValue } from "../KindValue";
import { PlaceField } from "./PlaceField";
import { useWords } from "./useWords";
import classes from "./Words.module.css";
import { WordsForm } from "./WordsForm";

const SHOWS: { value: BannerValues["shows"]; label: string }[] = [
  { value: "on", label: "on it" },
  { value: "below", label: "below" },
  { value: "above", label: "above" },
  { value: "beside", label: "beside" },
  { value: "off", label: "off" },
];

export function WordsFields() {
  const { cursor } = useDesk();
  const { here, values, words, detail, set } = useWords();
  if (!values || !here) return null;
  const width = valueAt(here.block?.w, cursor);
  const said = [words.heading, words.text, ...words.buttons.map((b) => b.label)].filter((t) =>
    t.trim(),
  );
  return (
    <>
      <div className={classes.says}>
        <span className="soft">Says</span>
        <span className={classes.said} title={said.join(" · ")}>
          {said.join(" · ") || "nothing yet"}
        </span>
        <WordsForm />
      </div>
      <KindValue fields={["shows"]} label="Shows">
        <SegmentedControl
          size="xs"
          aria-label="Where the words show"
          value={values.shows}
          onChange={(shows) => set({ shows: shows as BannerValues["shows"] })}
          data={SHOWS}
        />
      </KindValue>
      {values.shows === "beside" && (
        <KindValue fields={["share_percent", "side"]} label="Row">
          <NumberField
            label="Share of the picture in the row"
            before="picture"
            unit="%"
            value={values.share_percent}
            set={(v) => set({ share_percent: v }, "share")}
          />
          <SegmentedControl
            size="xs"
            aria-label="Side of the words"
            value={values.side}
            onChange={(side) => set({ side: side as "start" | "end" })}
            data={[
              { value: "start", label: "words left" },
              { value: "end", label: "right" },
            ]}
          />
        </KindValue>
      )}
      {values.shows !== "off" && (
        <>
          <KindValue fields={["place"]} label="Place">
            <PlaceField
              label="Place of the words"
              place={values.place}
              set={(place) => set({ place })}
              ratings={detail?.places}
            />
          </KindValue>
          <KindValue fields={["percent"]} label="Width">
            <NumberField
              label="Width of the words"
              unit="%"
              value={values.percent}
              set={(v) => set({ percent: v }, "percent")}
            />
            {width !== undefined && (
              <span className={classes.figures}>{Math.round(width)} px here</span>
            )}
          </KindValue>
          <KindValue fields={["margin_px"]} label="Margin">
            <NumberField
              label="Margin"
              unit="px on every side"
              value={values.margin_px}
              set={(v) => set({ margin_px: v }, "margin")}
            />
          </KindValue>
          <KindValue fields={["heading_px", "text_px"]} label="Type">
            <NumberField
              label="Size of the heading"
              unit="px"
              value={values.heading_px}
              set={(v) => set({ heading_px: v }, "heading size")}
            />
            <NumberField
              label="Size of the text"
              before="text"
              unit="px"
              value={values.text_px}
              set={(v) => set({ text_px: v }, "text size")}
            />
          </KindValue>
          <KindValue fields={["align"]} label="Align">
            <SegmentedControl
              size="xs"
              aria-label="Alignment"
              value={values.align}
              onChange={(align) => set({ align: align as BannerValues["align"] })}
              data={[
                { value: "start", label: "left" },
                { value: "centre", label: "centre" },
                { value: "end", label: "right" },
              ]}
            />
          </KindValue>
          <KindValue fields={["colour", "button"]} label="Colour">
            <ColourInput
              label="Colour of the words"
              value={values.colour}
              set={(v) => set({ colour: v }, "colour")}
            />
            {words.buttons.length > 0 && (
              <>
                <span className="soft">buttons</span>
                <ColourInput
                  label="Colour of the buttons"
                  value={values.button.fill}
                  set={(fill) => set({ button: { ...values.button, fill } }, "fill")}
                />
                <ColourInput
                  label="Colour of their words"
                  value={values.button.ink}
                  set={(ink) => set({ button: { ...values.button, ink } }, "ink")}
                />
              </>
            )}
          </KindValue>
        </>
      )}
    </>
  );
}

interface ColourProps {
  label: string;
  value: string;
  set: (colour: string) => void;
}

export function ColourInput({ label, value, set }: ColourProps) {
  return (
    <input
      type="color"
      className={classes.colour}
      aria-label={label}
      title={`${label}: ${value}`}
      value={value}
      onChange={(e) => set(e.currentTarget.value)}
    />
  );
}
