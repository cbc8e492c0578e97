import { NumberField } from "../ui/NumberField";
import type { PlanProps } from "./planProps";
import { Row } from "./Row";
import classes from "./Settings.module.css";

/** What holds the placements that do not span the page. */
export function Container({ plan, set }: PlanProps) {
  return (
    <Row label="Container">
      <div className={classes.inline}>
        <NumberField
          label="Greatest width of the container"
          before="at most"
          unit="px"
          value={plan.container.max_width_px}
          set={(v) => set({ container: { ...plan.container, max_width_px: v } })}
        />
        <NumberField
          label="Margin of the container"
          before="margin"
          unit="px on both sides"
          value={plan.container.margin_px}
          set={(v) => set({ container: { ...plan.container, margin_px: v } })}
        />
      </div>
    </Row>
  );
}

/** The screens that frames in vh are read on. */
export function ScreenHeights({ plan, set }: PlanProps) {
  return (
    <Row label="Screen heights">
      {plan.heights.map((h, i) => (
        <div key={h.to_px} className={classes.inline}>
          <span style={{ width: 130 }}>
            {i === plan.heights.length - 1 ? "wider" : `up to ${h.to_px} px wide`}
          </span>
          {(["least_px", "typical_px", "greatest_px"] as const).map((k) => (
            <NumberField
              key={k}
              label={`${k.replace("_px", "")} height up to ${h.to_px}`}
              before={k.replace("_px", "")}
              unit="px"
              value={h[k]}
              set={(v) =>
                set({ heights: plan.heights.map((x, n) => (n === i ? { ...x, [k]: v } : x)) })
              }
            />
          ))}
        </div>
      ))}
      <p className="soft">Frames in vh are read over this range; panes show the typical height.</p>
    </Row>
  );
}
