import type { Treatment } from "../../../api/queries";
import { useWork } from "../../context";
import classes from "./Aim.module.css";

export type SetTreatment = (values: Treatment, group?: string) => void;

/** The colour behind the picture, or in its place. */
export function Colour({ set, label }: { set: SetTreatment; label: string }) {
  const { span } = useWork();
  return (
    <label className={classes.colour}>
      {label}
      <input
        type="color"
        aria-label="Background colour"
        value={span.effective.background === "none" ? "#ffffff" : span.effective.background}
        onChange={(e) => set({ background: e.currentTarget.value }, `background ${span.letter}`)}
      />
    </label>
  );
}
