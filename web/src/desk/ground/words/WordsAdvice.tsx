/** What is wrong with the words of the chosen span, and the gentlest remedy with one press. */
import { Button } from "@mantine/core";
import type { Remedy } from "../../../api/queries";
import { Letter } from "../../../ui/Letter";
import { isSeen } from "../../conditions";
import { useWork } from "../../context";
import { followers, withRemedy } from "../../remedy";
import { AllSteps } from "../AllSteps";
import aim from "../aim/Aim.module.css";
import ground from "../Ground.module.css";
import { useLaying } from "../useLaying";
import { useWords } from "./useWords";

export function WordsAdvice() {
  const { reading, span, handle, originals, choose, conditions } = useWork();
  const lay = useLaying();
  const { detail } = useWords();
  const apply = (step: Remedy) =>
    handle.change((d) => withRemedy(d, 0, span.letter, step, originals, lay));
  const elsewhere = [
    ...new Set(
      reading.findings
        .filter((f) => f.step === "words" && f.part === 0 && isSeen(f.when, conditions))
        .flatMap((f) => f.spans),
    ),
  ]
    .filter((l) => l !== span.letter)
    .sort();
  const { verdicts } = reading;
  const isWell = verdicts.every((v) =>
    v.runs.every(
      (r) => r.last < span.first || r.first > span.last || !r.verdict || r.verdict === "whole",
    ),
  );
  return (
    <>
      {detail?.advice.map((a) => {
        const works = a.steps.filter((s) => s.works);
        return (
          <section
            key={a.problem}
            className={`${ground.card} ${aim.advice}`}
            aria-label={a.sentence}
          >
            <h3>{a.sentence}</h3>
            <p>{a.why}</p>
            {works[0] && (
              <p>
                {works[0].why} {followers(works[0])}
              </p>
            )}
            <div className={aim.row}>
              {works.slice(0, 2).map((s, i) => (
                <Button
                  key={s.label}
                  variant={i === 0 ? "filled" : "default"}
                  onClick={() => apply(s)}
                >
                  {s.label}
                </Button>
              ))}
              {a.steps.length > 1 && <AllSteps steps={a.steps} apply={apply} />}
            </div>
          </section>
        );
      })}
      {detail && detail.advice.length === 0 && elsewhere.length > 0 && (
        <p className={aim.elsewhere}>
          {isWell ? "All is well here. Look at" : "Nothing is wrong with the words here. Look at"}{" "}
          {elsewhere.map((l) => (
            <button
              key={l}
              type="button"
              className={aim.jump}
              onClick={() => choose(l)}
              aria-label={`To span ${l}`}
            >
              <Letter of={l} small />
            </button>
          ))}
        </p>
      )}
    </>
  );
}
