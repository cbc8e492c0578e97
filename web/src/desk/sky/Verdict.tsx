/** How the picture fares at a width, in a word. Keep areas first; without any, sharpness. */
import { useParams } from "react-router";
import type { Reading } from "../../api/queries";
import { runAt, spanAt, valueAt } from "../scale";
import classes from "./Sky.module.css";

interface Props {
  reading: Reading;
  width: number;
  density: number;
}

export function Verdict({ reading, width, density }: Props) {
  const { step } = useParams();
  const worded = step === "words" ? wordsAt(reading, width) : undefined;
  const { verdict, word } = worded ?? verdictAt(reading, width, density);
  return (
    <div className={classes.verdict} data-verdict={verdict}>
      {word}
    </div>
  );
}

/** How the words fare at a width; nothing where none show. */
export function wordsAt(reading: Reading, width: number): { verdict?: string; word: string } | undefined {
  const runs = (reading.words?.bands ?? []).flatMap((b) => {
    const run = runAt(b, width);
    return run ? [{ b, run }] : [];
  });
  if (!runs.length) return reading.words ? { word: "no words" } : undefined;
  const faint = runs
    .filter(({ run }) => run.verdict === "faint")
    .map(({ b, run }) => valueAt(b.curve, width) ?? run.worst)
    .sort((a, b) => a - b)[0];
  if (faint !== undefined) return { verdict: "cut", word: `words ${faint.toFixed(1)} : 1` };
  if (runs.some(({ run }) => run.verdict === "covered")) return { verdict: "cut", word: "words on an area" };
  if (runs.some(({ run }) => run.verdict === "grows")) return { verdict: "cut", word: "words too tall" };
  return { verdict: "whole", word: "readable" };
}

export function verdictAt(reading: Reading, width: number, density: number): { verdict?: string; word: string } {
  const span = spanAt(reading.spans, width);
  const shows = span?.effective.show ?? "picture";
  // what is for portrait alone says nothing where there is nothing else for it
  if (shows === "nothing" && reading.logo && reading.part > 0) return { word: "as in landscape" };
  if (shows !== "picture") return { word: shows === "colour" ? "only colour" : "not shown" };
  if (!span?.effective.original) return { word: "no picture yet" };
  if (reading.items && reading.items.items.length > 1) {
    const n = reading.items.items.length;
    const found = reading.items.failing.find((f) => f.first <= width && width <= f.last);
    const run = runAt(reading.items.together, width);
    if (!found) return { verdict: "whole", word: `all ${n} whole` };
    return { verdict: run?.verdict ?? "cut", word: `${found.of - found.parts.length} of ${found.of} whole` };
  }
  const areas = reading.bands.filter((b) => b.kind === "area").flatMap((b) => runAt(b, width) ?? []);
  if (areas.length) {
    const whole = areas.filter((r) => r.verdict === "whole").length;
    const worst = areas.some((r) => r.verdict === "lost") ? "lost" : whole < areas.length ? "cut" : "whole";
    return { verdict: worst, word: whole === areas.length ? "all whole" : `${whole} of ${areas.length} whole` };
  }
  const band = reading.bands.find((b) => b.kind === "sharp" && b.density === density);
  const run = band && runAt(band, width);
  if (run?.verdict !== "soft") return { verdict: "whole", word: "sharp" };
  return { verdict: "cut", word: `soft, ${(valueAt(band?.curve, width) ?? run.worst).toFixed(2)}×` };
}
