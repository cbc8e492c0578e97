/** What lies under the words: background colour, scrim, box. */
import { SegmentedControl, Slider } from "@mantine/core";
import type { BannerValues, Treatment } from "../../../api/queries";
import { percent } from "../../../ui/format";
import { NumberField } from "../../../ui/NumberField";
import { featuresOf } from "../../conditions";
import { useWork } from "../../context";
import { partOf } from "../../draft";
import { Field } from "../Field";
import { KindValue } from "../KindValue";
import { useWords } from "./useWords";
import classes from "./Words.module.css";
import { ColourInput } from "./WordsFields";

type Scrim = BannerValues["scrim"];
type Stop = Extract<Scrim, { kind: "linear" }>["stops"][number];

const GRADIENT: Scrim = {
  kind: "linear",
  angle: 90,
  stops: [
    { colour: "#000000", alpha: 1, at: 0 },
    { colour: "#000000", alpha: 0, at: 100 },
  ],
};
const PLAIN: Scrim = { kind: "plain", colour: "#000000" };
const switched = (kind: string): Scrim =>
  kind === "linear" ? GRADIENT : kind === "plain" ? PLAIN : { kind: "none" };

export function UnderFields() {
  const { span, handle, conditions } = useWork();
  const { values, set, detail } = useWords();
  const when = featuresOf(conditions);
  // under conditions the colour is of what shows then
  const ground = (background: string) => {
    const { letter } = span;
    if (!when.length || partOf(handle.draft, handle.part).of != null)
      return handle.treat(letter, { background }, `background ${letter}`);
    const treatment = { background } as Treatment;
    void handle.edit({ kind: "variant", part: 0, when, letter, treatment, gone: [] });
  };
  if (!values) return null;
  const { box, scrim } = values;
  const kind = box.strength === 0 ? "none" : box.strength === 1 ? "solid" : "see-through";
  return (
    <>
      <Field field="background" label="Ground">
        <ColourInput label="Background colour" value={span.effective.background} set={ground} />
        <span className="soft">alone until the picture is here</span>
      </Field>
      <KindValue fields={["scrim", "strength"]} label="Scrim">
        <SegmentedControl
          size="xs"
          aria-label="Scrim"
          value={scrim.kind}
          onChange={(k) => set({ scrim: switched(k) })}
          data={[
            { value: "none", label: "none" },
            { value: "plain", label: "plain" },
            { value: "linear", label: "gradient" },
          ]}
        />
        {scrim.kind !== "none" && (
          <>
            <Slider
              className={classes.slider}
              thumbLabel="Strength of the scrim"
              label={null}
              min={0}
              max={100}
              value={Math.round(values.strength * 100)}
              onChange={(v) => set({ strength: v / 100 }, "strength")}
              onChangeEnd={() => handle.settle()}
              marks={detail?.least_strength != null ? [{ value: detail.least_strength * 100 }] : []}
            />
            <span className="num">{percent(values.strength)}</span>
            {detail?.least_strength != null && (
              <span className="soft">least {percent(detail.least_strength)}</span>
            )}
          </>
        )}
      </KindValue>
      {scrim.kind === "plain" && (
        <div className={classes.inner}>
          <ColourInput
            label="Colour of the scrim"
            value={scrim.colour}
            set={(colour) => set({ scrim: { ...scrim, colour } }, "scrim colour")}
          />
        </div>
      )}
      {scrim.kind === "linear" && (
        <div className={classes.inner}>
          <NumberField
            label="Angle"
            before="angle"
            unit="°"
            value={scrim.angle}
            set={(angle) => set({ scrim: { ...scrim, angle } }, "angle")}
          />
          {scrim.stops.map((stop, i) => (
            <StopField
              // biome-ignore lint/suspicious/noArrayIndexKey: a stop is its place along the gradient
              key={i}
              stop={stop}
              n={i + 1}
              set={(s) =>
                set(
                  { scrim: { ...scrim, stops: scrim.stops.map((o, j) => (j === i ? s : o)) } },
                  `stop ${i}`,
                )
              }
              remove={
                scrim.stops.length > 2
                  ? () => set({ scrim: { ...scrim, stops: scrim.stops.filter((_, j) => j !== i) } })
                  : undefined
              }
            />
          ))}
          {scrim.stops.length < 8 && (
            <button
              type="button"
              className="plain"
              onClick={() =>
                set({
                  scrim: {
                    ...scrim,
                    stops: [...scrim.stops, { ...(scrim.stops.at(-1) as Stop), at: 100 }],
                  },
                })
              }
            >
              + stop
            </button>
          )}
        </div>
      )}
      <KindValue fields={["box"]} label="Box">
        <SegmentedControl
          size="xs"
          aria-label="Box behind the words"
          value={kind}
          onChange={(k) =>
            set({
              box: {
                ...box,
                strength: k === "none" ? 0 : k === "solid" ? 1 : 0.6,
                padding_px: box.padding_px || 16,
              },
            })
          }
          data={["none", "solid", "see-through"]}
        />
        {kind !== "none" && (
          <>
            <ColourInput
              label="Colour of the box"
              value={box.colour}
              set={(colour) => set({ box: { ...box, colour } }, "box colour")}
            />
            <NumberField
              label="Strength of the box"
              unit="%"
              value={Math.round(box.strength * 100)}
              set={(v) =>
                set(
                  { box: { ...box, strength: Math.min(1, Math.max(0, v / 100)) } },
                  "box strength",
                )
              }
            />
            <NumberField
              label="Padding of the box"
              before="padding"
              unit="px"
              value={box.padding_px}
              set={(v) => set({ box: { ...box, padding_px: v } }, "padding")}
            />
          </>
        )}
      </KindValue>
    </>
  );
}

interface StopProps {
  stop: Stop;
  n: number;
  set: (stop: Stop) => void;
  remove?: () => void;
}

function StopField({ stop, n, set, remove }: StopProps) {
  return (
    <span className={classes.stop}>
      <ColourInput
        label={`Colour of stop ${n}`}
        value={stop.colour}
        set={(colour) => set({ ...stop, colour })}
      />
      <NumberField
        label={`Opacity of stop ${n}`}
        unit="%"
        value={Math.round(stop.alpha * 100)}
        set={(v) => set({ ...stop, alpha: Math.min(1, Math.max(0, v / 100)) })}
      />
      <NumberField
        label={`Place of stop ${n}`}
        before="at"
        unit="%"
        value={stop.at}
        set={(at) => set({ ...stop, at })}
      />
      {remove && (
        <button type="button" className="plain" aria-label={`Remove stop ${n}`} onClick={remove}>
          ×
        </button>
      )}
    </span>
  );
}
