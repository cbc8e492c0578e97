/** How a placement fares at a width, in a word: the worst of all that is known there, as the core says it. */
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

type Drawn = "whole" | "cut" | "lost";

const DRAWN: Record<string, Drawn> = { whole: "whole", lost: "lost", none: "lost" };

/** The verdict with the figure that holds at just this width. */
export function verdictAt(reading: Reading, width: number, density: number): { verdict?: Drawn; word: string } {
  const runs = reading.verdicts.find((v) => v.density === density) ?? reading.verdicts[0];
  const run = runs && runAt(runs, width);
  if (!run) return { word: "" };
  const verdict = run.verdict ? (DRAWN[run.verdict] ?? "cut") : undefined;
  const bands = [...Object.values(reading.parts).flatMap((p) => p.bands), ...(reading.words?.bands ?? [])];
  const band = bands.find((b) => b.kind === run.kind && b.name === run.name);
  const value = valueAt(band?.curve, width);
  if (value === undefined) return { verdict, word: run.word };
  switch (run.kind) {
    case "sharp":
      return { verdict, word: `soft, ${value.toFixed(2)}×` };
    case "readable":
      return { verdict, word: `words ${value.toFixed(1)} : 1` };
    case "seen":
      return { verdict, word: `${percent(1 - value)} out of view` };
    default:
      return { verdict, word: run.word };
  }
}
