import type { Original, Treatment } from "../../../api/queries";
import { whenWords } from "../../conditions";
import { lookOf } from "../../useBringing";
import { useVariant } from "../useVariant";
import classes from "./Aim.module.css";

/** A version of the picture that can show in its place. */
export function Version({ original }: { original: Original }) {
  const { say } = useVariant(original.version_when);
  const shown = { show: "picture", original: original.id } as Treatment;
  return (
    <div className={classes.stands}>
      {original.name} is its version {whenWords(original.version_when)}.{" "}
      <button
        type="button"
        className="plain"
        onClick={() => say(shown, { [original.id]: lookOf(original) })}
      >
        show it then
      </button>
    </div>
  );
}
