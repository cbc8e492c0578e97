/**
 * The gentlest remedy for the chosen span: why it fails, what helps, one press to apply and one to
 * undo.
 */
import { Button } from "@mantine/core";
import type { Reading, Remedy } from "../../../api/queries";
import { Letter } from "../../../ui/Letter";
import { Rows } from "../../../ui/states";
import { useWork } from "../../context";
import { followers, withRemedy } from "../../remedy";
import { AllSteps } from "../AllSteps";
import ground from "../Ground.module.css";
import { useLaying } from "../useLaying";
import classes from "./Aim.module.css";

export function AdviceCard() {
  const { reading, span, handle, originals, choose } = useWork();
  const lay = useLaying();
  const advice = reading.advice.find((a) => a.span === span.letter);
  const failing = new Set(
    reading.findings.filter((f) => f.rule === "area").flatMap((f) => f.spans),
  );
  const elsewhere = [...failing].filter((l) => l !== span.letter).sort();
  const apply = (step: Remedy) =>
    handle.change((d) => withRemedy(d, handle.part, span.letter, step, originals, lay));
  // the reading on screen may still be that of the span chosen before
  if (!advice && failing.has(span.letter)) return <Rows n={1} height={150} />;
  if (!advice)
    return elsewhere.length ? (
      <p className={classes.elsewhere}>
        All areas are whole here. Something is cut in{" "}
        {elsewhere.map((l) => (
          <button
            key={l}
            type="button"
            className={classes.jump}
            onClick={() => choose(l)}
            aria-label={`To span ${l}`}
          >
            <Letter of={l} small />
          </button>
        ))}
      </p>
    ) : null;
  const works = advice.steps.filter((s) => s.works);
  const best = advice.best != null ? advice.steps[advice.best] : undefined;
  const gentler = advice.steps.filter((s) => !s.works);
  return (
    <section
      className={`${ground.card} ${classes.advice}`}
      aria-label={`Advice for span ${span.letter}`}
    >
      <h3>{headline(advice)}</h3>
      <p>{advice.steps[0]?.works ? advice.steps[0].why : gentler[0]?.why}</p>
      {best && (best.kind !== "aim" || best.follow.length > 0) && (
        <p>
          {best.kind !== "aim" && best.why} {followers(best)}
        </p>
      )}
      <div className={classes.row}>
        {works
          .filter((s, i) => i === 0 || s.kind !== "colour")
          .slice(0, 2)
          .map((s, i) => (
            <Button key={s.label} variant={i === 0 ? "filled" : "default"} onClick={() => apply(s)}>
              {s.label}
            </Button>
          ))}
        {(gentler.length > 1 || works.length > 2) && (
          <AllSteps steps={advice.steps} apply={apply} />
        )}
      </div>
    </section>
  );
}

function headline(advice: Reading["advice"][number]): string {
  if (advice.steps[0]?.works) return "Another position keeps all of them.";
  const n = advice.failing.length;
  return n === 1
    ? `No position keeps ${advice.failing[0]} whole here.`
    : `No position keeps all areas whole here.`;
}
