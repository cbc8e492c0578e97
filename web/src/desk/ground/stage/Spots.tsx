/** The frame rules that give what was drawn on the design; one of them is taken. */
import { useEffect, useState } from "react";
import { ProblemError } from "../../../api/client";
import type { Treatment } from "../../../api/queries";
import { useWork } from "../../context";
import { withCommon, withTreatment } from "../../draft";
import { usualAt } from "../../parts";
import { spanAt } from "../../scale";
import { askSpot, type ReadRule, type Seen } from "./designs";
import classes from "./Stage.module.css";

interface Props {
  seen: Seen[];
  /** A rule has been chosen. */
  take: () => void;
  forget: () => void;
}

const TOLD_AT = [360, 768, 1280, 1920];

export function Spots({ seen, take: taken, forget }: Props) {
  const { site, reading, handle } = useWork();
  const [rules, setRules] = useState<ReadRule[]>();
  const [refused, setRefused] = useState<string>();
  const told = JSON.stringify(seen);
  useEffect(() => {
    let latest = true;
    setRules(undefined);
    askSpot(site.id, JSON.parse(told) as Seen[]).then(
      (found) => {
        if (!latest) return;
        setRules(found);
        setRefused(undefined);
      },
      (problem: unknown) => {
        if (latest && problem instanceof ProblemError)
          setRefused(problem.problem.errors?.[0]?.sentence ?? problem.message);
      },
    );
    return () => {
      latest = false;
    };
  }, [site.id, told]);

  const letters = [
    ...new Set(seen.map((s) => spanAt(reading.spans, s.width)?.letter).filter((l) => l != null)),
  ];
  const take = (rule: ReadRule) => {
    const values = {
      width: rule.width,
      ...(rule.height ? { height: rule.height } : {}),
      ...(rule.stands ? { stands: rule.stands } : {}),
    } as Treatment;
    const none = Object.fromEntries(Object.keys(values).map((f) => [f, undefined])) as Treatment;
    const part = usualAt(handle.draft.placement.parts, handle.part);
    const widest = reading.spans.at(-1)?.letter ?? "D";
    const to = letters.length > 1 ? widest : (letters[0] ?? widest);
    handle.change((draft) => {
      const set = (d: typeof draft, letter: string, v: Treatment) =>
        reading.items ? withCommon(d, letter, v) : withTreatment(d, part, letter, v);
      const bare = letters.filter((l) => l !== to).reduce((d, l) => set(d, l, none), draft);
      return set(bare, to, values);
    });
    taken();
  };
  return (
    <section className={classes.spots} aria-label="Frame rules that give what was drawn">
      <header>
        <b>
          {seen
            .map((s) => `${Math.round(s.right - s.left)} px at ${Math.round(s.width)}`)
            .join(", ")}
        </b>
        <button type="button" className="plain" onClick={forget}>
          forget what was drawn
        </button>
      </header>
      {refused && <p role="alert">{refused}</p>}
      {rules?.length === 0 && (
        <p>No one rule gives all of them. Forget one, and set spans one by one.</p>
      )}
      <ul>
        {rules?.map((rule) => (
          <li key={rule.sentence}>
            <button type="button" className={classes.rule} onClick={() => take(rule)}>
              {rule.sentence}
              <span className={classes.pxAt}>
                {rule.at.map((px, i) => `${Math.round(px)} at ${TOLD_AT[i]}`).join(" · ")}
              </span>
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}
