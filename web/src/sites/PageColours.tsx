/** What lies behind everything on a page, and the colour of its text; others in the dark. */
import { Checkbox } from "@mantine/core";
import type { SitePlan } from "../api/queries";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";

type Colours = SitePlan["colours"];

/** What pages begin with in the dark: 15.9 : 1 (WCAG 2.2, relative luminance). */
const DARK: Colours = { ground: "#16191a", ink: "#f0f2f1" };

export function PageColours({ plan, set }: PlanProps) {
  const dark = plan.colours_dark;
  return (
    <Row label="Pages">
      <Pair of={plan.colours} set={(colours) => set({ colours })} label="" />
      <Checkbox
        label="Other colours in the dark"
        checked={dark !== null}
        onChange={(e) => set({ colours_dark: e.currentTarget.checked ? DARK : null })}
      />
      {dark && <Pair of={dark} set={(d) => set({ colours_dark: d })} label=" in the dark" />}
      <p className="soft">
        Captions and texts beside pictures have them, and what stands on the page without a colour
        of its own.
      </p>
    </Row>
  );
}

function Pair({ of, set, label }: { of: Colours; set: (colours: Colours) => void; label: string }) {
  return (
    <div className={classes.inline}>
      <label className={classes.colour}>
        Ground{label}
        <input
          type="color"
          value={of.ground}
          onChange={(e) => set({ ...of, ground: e.currentTarget.value })}
        />
      </label>
      <label className={classes.colour}>
        Text{label}
        <input
          type="color"
          value={of.ink}
          onChange={(e) => set({ ...of, ink: e.currentTarget.value })}
        />
      </label>
    </div>
  );
}
