/**
 * How a placement fares at a width, in a word: the worst of all that is known there, as the core
 * says it.
 */
import type { Reading } from "../../api/queries";
import { percent } from "../../ui/format";
import { runAt, valueAt } from "../scale";
import classes from "./Sky.module.css";

interface Props {
  reading: Reading;
  width: number;
  density: number;
}

export function Verdict({ reading, width, density }: Props) {
  const { verdict, word } = verdictAt(reading, width, density);
  return (
    <div className={classes.verdict} data-verdict={verdict} title={word}>
      {word}
    </div>
  );
}

/** The verdict with the figure that holds at just this width. */
export function verdictAt(reading: Reading, width: number, density: number) {
  const runs = reading.verdicts.find((v) => v.density === density) ?? reading.verdicts[0];
  const run = runs && runAt(runs, width);
  if (!run) return { verdict: undefined, word: "" };
  const verdict = run.drawn ?? undefined;
  const value = run.figured ? valueAt(bandOf(reading, run.band)?.curve, width) : undefined;
  if (value === undefined) return { verdict, word: run.word };
  const figured = run.figured
    .replace("{times}", `${value.toFixed(2)}×`)
    .replace("{contrast}", `${value.toFixed(1)} : 1`)
    .replace("{out}", percent(1 - value));
  return { verdict, word: figured };
}

function bandOf(reading: Reading, id: string | null) {
  const bands = [
    ...Object.values(reading.parts).flatMap((p) => p.bands),
    ...(reading.words?.bands ?? []),
  ];
  return bands.find((b) => b.id === id);
}
