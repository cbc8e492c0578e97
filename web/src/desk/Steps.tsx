/** The steps of a placement in the order in which people work, each with its findings. */
import type { Reading } from "../api/queries";
import classes from "./Desk.module.css";

export const STEPS = [
  ["frame", "Frame"],
  ["aim", "Aim"],
  ["words", "Words"],
  ["files", "Files"],
  ["code", "Code"],
  ["proof", "Proof"],
] as const;
export type Step = (typeof STEPS)[number][0];

/** Steps that are done as soon as nothing is found in them; the others need an export. */
const DONE_WITHOUT_FILES: readonly Step[] = ["frame", "aim", "words", "code"];

interface Props {
  step: Step;
  go: (step: Step) => void;
  findings: Reading["findings"] | undefined;
  /** They are of the placement as it was. */
  old: boolean;
  delivered: boolean;
}

export function Steps({ step, go, findings, old, delivered }: Props) {
  return (
    <nav aria-label="Steps" className={classes.steps} data-old={old || undefined}>
      {STEPS.map(([name, label], i) => {
        const found = findings?.filter((f) => f.step === name).length ?? 0;
        const done = found === 0 && (DONE_WITHOUT_FILES.includes(name) || delivered);
        return (
          <button
            key={name}
            type="button"
            className={classes.step}
            aria-current={step === name ? "step" : undefined}
            onClick={() => go(name)}
            title={`${i + 1}`}
          >
            <span
              className={classes.dot}
              data-state={found ? "findings" : done ? "done" : "open"}
            />
            {label}
            {found > 0 && (
              <span className={classes.count}>
                {found}
                <span className="srOnly"> findings</span>
              </span>
            )}
          </button>
        );
      })}
    </nav>
  );
}
