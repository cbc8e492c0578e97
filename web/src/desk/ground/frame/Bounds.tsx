import { NumberField } from "../../../ui/NumberField";
import classes from "./Frame.module.css";

type Bounded = { least_px?: number | null; greatest_px?: number | null };

/**
 * `ofScreen`: the fields of a rule that can be bounded by shares of the viewport's height as well.
 */
export function Bounds<R extends Bounded>({
  rule,
  set,
  of,
  ofScreen = [],
}: {
  rule: R;
  set: (rule: R) => void;
  of: string;
  ofScreen?: [keyof R, keyof R] | [];
}) {
  const field = (name: keyof R, label: string, unit: string, before?: string) => (
    <NumberField
      label={label}
      before={before}
      unit={unit}
      optional
      value={(rule[name] as number | null | undefined) ?? undefined}
      set={(v) => set({ ...rule, [name]: v ?? null })}
    />
  );
  const [least, greatest] = ofScreen;
  return (
    <div className={classes.bounds}>
      <div className={classes.bound}>
        {field("least_px", `Least ${of}`, "px", "at least")}
        {least && field(least, `Least ${of}, share of the viewport's`, "vh", "and")}
      </div>
      <div className={classes.bound}>
        {field("greatest_px", `Greatest ${of}`, "px", "at most")}
        {greatest && field(greatest, `Greatest ${of}, share of the viewport's`, "vh", "and")}
      </div>
    </div>
  );
}
