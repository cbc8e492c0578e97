import { Checkbox, Group } from "@mantine/core";
import type { SitePlan } from "../api/queries";
import { NumberField } from "../ui/NumberField";
import { LikenessField } from "./LikenessField";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";

/** Formats, densities, how like the files are, and the budget. */
export function Files({ plan, set }: PlanProps) {
  return (
    <Row label="Files">
      <Checkbox.Group
        value={plan.formats}
        onChange={(v) => set({ formats: v as SitePlan["formats"] })}
      >
        <Group>
          <Checkbox value="avif" label="AVIF" />
          <Checkbox value="webp" label="WebP" />
          <Checkbox value="jpeg" label="JPEG (PNG where there is transparency)" />
        </Group>
      </Checkbox.Group>
      <Checkbox.Group
        value={plan.densities.map(String)}
        onChange={(v) => set({ densities: v.map(Number).sort((a, b) => a - b) })}
      >
        <Group>
          <Checkbox value="1" label="1x" />
          <Checkbox value="2" label="2x" />
          <Checkbox value="3" label="3x, bytes that few can see" />
        </Group>
      </Checkbox.Group>
      <LikenessField value={plan.likeness} set={(likeness) => set({ likeness })} />
      <NumberField
        label="Budget of a picture"
        before="Budget of one picture"
        unit="kB"
        value={plan.budget_bytes / 1000}
        set={(v) => set({ budget_bytes: Math.round(v * 1000) })}
      />
    </Row>
  );
}
