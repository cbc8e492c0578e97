/** Every remedy in its order, with why it helps or does not. */
import { Popover } from "@mantine/core";
import { useState } from "react";
import type { Remedy } from "../../api/queries";
import { followers } from "../remedy";
import classes from "./aim/Aim.module.css";

export function AllSteps({
  steps,
  apply,
}: {
  steps: readonly Remedy[];
  apply: (step: Remedy) => void;
}) {
  const [open, setOpen] = useState(false);
  return (
    <Popover opened={open} onChange={setOpen} position="top-end" shadow="md" trapFocus width={440}>
      <Popover.Target>
        <button type="button" className="plain" onClick={() => setOpen(!open)} aria-expanded={open}>
          Why, and what else…
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <ul className={classes.steps}>
          {steps.map((s) => (
            <li key={`${s.kind} ${s.label}${s.why}`} data-works={s.works || undefined}>
              {s.why} {s.works && followers(s)}{" "}
              {s.works && (
                <button
                  type="button"
                  className="plain"
                  onClick={() => {
                    apply(s);
                    setOpen(false);
                  }}
                >
                  {s.label}
                </button>
              )}
            </li>
          ))}
        </ul>
      </Popover.Dropdown>
    </Popover>
  );
}
