/** Where the picture sits in its frame: following, or two percentages. */
import { SegmentedControl } from "@mantine/core";
import type { Treatment } from "../../../api/queries";
import { NumberField } from "../../../ui/NumberField";
import { useWork } from "../../context";
import { Field } from "../Field";
import { AimCosts } from "./AimCosts";

const inPercent = (share: number) => Math.round(share * 10000) / 100;

export function AimField({ set }: { set: (values: Treatment, group?: string) => void }) {
  const { span } = useWork();
  const { aim } = span.effective;
  const way = aim.kind === "fixed" ? "fixed" : !aim.areas ? "focal" : "areas";
  return (
    <Field field="aim" label="Aim">
      <SegmentedControl
        size="xs"
        aria-label="Aim"
        value={way}
        onChange={(kind) =>
          set({
            aim:
              kind === "fixed"
                ? { kind, x: 0.5, y: 0.5 }
                : { kind: "following", areas: kind === "areas" },
          })
        }
        data={[
          { value: "areas", label: "areas first" },
          { value: "focal", label: "focal point" },
          { value: "fixed", label: "fixed" },
        ]}
      />
      <AimCosts set={set} />
      {aim.kind === "fixed" && (
        <>
          <NumberField
            label="Across"
            unit="%"
            value={inPercent(aim.x)}
            set={(v) => set({ aim: { ...aim, x: v / 100 } }, `aim ${span.letter}`)}
          />
          <NumberField
            label="Down"
            unit="%"
            value={inPercent(aim.y)}
            set={(v) => set({ aim: { ...aim, y: v / 100 } }, `aim ${span.letter}`)}
          />
        </>
      )}
    </Field>
  );
}
