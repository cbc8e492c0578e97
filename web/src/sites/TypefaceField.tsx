import { Select } from "@mantine/core";
import type { SitePlan } from "../api/queries";
import { RankSelect } from "../ui/RankSelect";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";

const FACES: SitePlan["typeface"][] = ["Instrument Sans", "Newsreader"];

/**
 * The typeface of words on pictures, whose files go with what is delivered, and the rank of their
 * headings.
 */
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
      <RankSelect
        label="Rank of headings"
        value={plan.heading_level}
        set={(rank) => rank && set({ heading_level: rank })}
      />
    </Row>
  );
}
