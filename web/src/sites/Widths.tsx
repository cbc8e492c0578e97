import { SegmentedControl, TextInput } from "@mantine/core";
import type { SitePlan } from "../api/queries";
import { range } from "../ui/format";
import { Letter } from "../ui/Letter";
import { NumberField } from "../ui/NumberField";
import { BreakpointsInput, parseBreakpoints, spansOf } from "./BreakpointsInput";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";

interface WidthsProps extends PlanProps {
  breakpoints: string;
  setBreakpoints: (text: string) => void;
  error: string | undefined;
}

/** From where to where, and where it changes. */
export function Widths({ plan, set, breakpoints, setBreakpoints, error }: WidthsProps) {
  return (
    <Row label="Widths">
      <div className={classes.inline}>
        <NumberField
          label="Narrowest viewport"
          before="from"
          unit="px"
          value={plan.narrowest}
          set={(v) => set({ narrowest: v })}
        />
        <NumberField
          label="Widest viewport"
          before="to"
          unit="px"
          value={plan.widest}
          set={(v) => set({ widest: v })}
        />
      </div>
      <BreakpointsInput value={breakpoints} onChange={setBreakpoints} error={error} tells={false} />
      <div className={classes.inline}>
        {spansOf(parseBreakpoints(breakpoints), plan.narrowest, plan.widest).map(
          ([letter, first, last]) => (
            <label key={letter} className={classes.title}>
              <Letter of={letter} />
              <span>{range(first, last, plan.widest)}</span>
              <TextInput
                aria-label={`Title of span ${letter}, used in file names`}
                placeholder={letter.toLowerCase()}
                value={plan.titles[letter] ?? ""}
                onChange={(e) =>
                  set({ titles: { ...plan.titles, [letter]: e.currentTarget.value } })
                }
                styles={{ input: { width: 100 } }}
              />
            </label>
          ),
        )}
      </div>
      <p className="soft">
        A title takes the letter's place in file names: lighthouse--narrow@2x.avif.
      </p>
    </Row>
  );
}

/** How breakpoints are written as media conditions. */
export function MediaConditions({ plan, set }: PlanProps) {
  return (
    <Row label="Media conditions">
      <SegmentedControl
        size="xs"
        aria-label="Style of media conditions"
        value={plan.media_style}
        onChange={(v) => set({ media_style: v as SitePlan["media_style"] })}
        data={[
          { value: "max-width", label: "max-width" },
          { value: "min-width", label: "min-width" },
          { value: "range", label: "range" },
        ]}
      />
      <p className="soft">
        {
          {
            "max-width": "Tested narrowest first: (max-width: 599px).",
            "min-width": "Tested widest first: (min-width: 600px).",
            range:
              "Tested narrowest first and without a hole for fractional widths: (width < 600px).",
          }[plan.media_style]
        }
      </p>
    </Row>
  );
}
