import { Select } from "@mantine/core";
import type { SitePlan } from "../api/queries";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";

const FACES: SitePlan["typeface"][] = ["Instrument Sans", "Newsreader"];

/** The typeface of words on pictures, whose files go with what is delivered. */
export function TypefaceField({ plan, set }: PlanProps) {
  return (
    <Row label="Words">
      <Select
        label="Typeface of words on pictures"
        allowDeselect={false}
        w={260}
        value={plan.typeface}
        onChange={(v) => v && set({ typeface: v as SitePlan["typeface"] })}
        data={FACES}
        description="Its files go with what is exported; where lines break follows from its own measures."
      />
    </Row>
  );
}
