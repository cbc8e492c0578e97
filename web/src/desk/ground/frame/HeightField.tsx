import { SegmentedControl } from "@mantine/core";
import { useState } from "react";
import { NumberField } from "../../../ui/NumberField";
import { Bounds } from "./Bounds";
import { RatioField } from "./RatioField";
import { firstHeight, type HeightRule, useSwitch } from "./rules";

interface Props {
  rule: HeightRule;
  /** The height that it has at the span's wide end, in px. */
  now: number;
  set: (rule: HeightRule) => void;
}

/** The kind of height rule, its numbers, its bounds. */
export function HeightField({ rule, now, set }: Props) {
  // a kind that was just chosen asks for its number
  const [chosen, setChosen] = useState(false);
  const { to, refused } = useSwitch((kind) => firstHeight(kind, rule, now), set);
  return (
    <>
      {refused && <p role="alert">{refused}</p>}
      <SegmentedControl
        size="xs"
        aria-label="Height rule"
        value={rule.kind}
        onChange={(kind) => {
          setChosen(true);
          void to(kind);
        }}
        data={[
          { value: "ratio", label: "ratio" },
          { value: "fixed", label: "px" },
          { value: "vh", label: "vh" },
          { value: "natural", label: "natural" },
        ]}
      />
      {rule.kind === "ratio" && (
        <RatioField w={rule.w} h={rule.h} set={(r) => set({ ...rule, ...r })} asks={chosen} />
      )}
      {rule.kind === "fixed" && (
        <NumberField
          label="Height"
          unit="px"
          value={rule.height_px}
          set={(v) => set({ ...rule, height_px: v })}
        />
      )}
      {rule.kind === "vh" && (
        <NumberField
          label="Share of the viewport's height"
          unit="vh"
          value={rule.percent}
          set={(v) => set({ ...rule, percent: v })}
        />
      )}
      {rule.kind === "ratio" ? (
        <Bounds rule={rule} set={set} of="height" ofScreen={["least_vh", "greatest_vh"]} />
      ) : (
        <Bounds rule={rule} set={set} of="height" />
      )}
    </>
  );
}
