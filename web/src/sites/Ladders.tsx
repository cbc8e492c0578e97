import { SegmentedControl } from "@mantine/core";
import type { SitePlan } from "../api/queries";
import { LISTS } from "../desk/ground/files/Offered";
import { NumberField } from "../ui/NumberField";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";

/** How files are offered to browsers, and how many widths a frame that changes is exported in. */
export function Ladders({ plan, set }: PlanProps) {
  return (
    <Row label="Offered">
      <SegmentedControl
        size="xs"
        aria-label="How files are offered"
        value={plan.lists}
        onChange={(v) => set({ lists: v as SitePlan["lists"] })}
        data={Object.entries(LISTS).map(([value, label]) => ({ value, label }))}
      />
      <p className="soft">
        {
          {
            fitting:
              "A frame that changes with the page gets a list of widths with sizes, one that does not 1x and 2x.",
            widths: "Every frame gets a list of widths with sizes: (max-width: 599px) 100vw, 50vw.",
            densities: "Every frame gets 1x and 2x, as large as it is at the wide end of its span.",
          }[plan.lists]
        }
      </p>
      {plan.lists !== "densities" && (
        <div className={classes.inline}>
          <NumberField
            label="Greatest waste of a ladder"
            before="as few widths as waste at most"
            unit="%"
            value={plan.waste_percent}
            set={(v) => set({ waste_percent: v })}
          />
          <NumberField
            label="Most widths of a ladder"
            before="up to"
            unit="widths"
            value={plan.most_files}
            set={(v) => set({ most_files: v })}
          />
        </div>
      )}
    </Row>
  );
}
