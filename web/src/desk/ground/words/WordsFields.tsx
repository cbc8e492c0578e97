/** How the words stand in the chosen span. */
import { useDesk } from "../../context";
import { valueAt } from "../../scale";
import { KindChoice, KindNumber } from "../KindRows";
import { KindValue } from "../KindValue";
import { PlaceField } from "./PlaceField";
import { useWords } from "./useWords";
import classes from "./Words.module.css";
import { WordsForm } from "./WordsForm";

const SHOWS = { on: "on it" };
const SIDES = { start: "words left", end: "right" };
const ALIGNED = { start: "left", end: "right" };

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
        <KindChoice field="shows" words={SHOWS} listed={false} />
      </KindValue>
      {values.shows === "beside" && (
        <KindValue fields={["share_percent", "side"]} label="Row">
          <KindNumber
            field="share_percent"
            label="Share of the picture in the row"
            before="picture"
          />
          <KindChoice field="side" words={SIDES} />
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
            <KindNumber field="percent" />
            {width !== undefined && (
              <span className={classes.figures}>{Math.round(width)} px here</span>
            )}
          </KindValue>
          <KindValue fields={["margin_px"]} label="Margin">
            <KindNumber field="margin_px" label="Margin" unit="px on every side" />
          </KindValue>
          <KindValue fields={["heading_px", "text_px"]} label="Type">
            <KindNumber field="heading_px" />
            <KindNumber field="text_px" before="text" />
          </KindValue>
          <KindValue fields={["align"]} label="Align">
            <KindChoice field="align" words={ALIGNED} />
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
