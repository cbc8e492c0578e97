/** How the picture fares at a width, in a word. Keep areas first; without any, sharpness. */
import type { Reading } from "../../api/queries";
import { runAt, spanAt, valueAt } from "../scale";
import classes from "./Sky.module.css";

interface Props {
  reading: Reading;
  width: number;
  density: number;
}

export function Verdict({ reading, width, density }: Props) {
  const { verdict, word } = verdictAt(reading, width, density);
  return (
    <div className={classes.verdict} data-verdict={verdict}>
      {word}
    </div>
  );
}

export function verdictAt(reading: Reading, width: number, density: number): { verdict?: string; word: string } {
  const span = spanAt(reading.spans, width);
  const shows = span?.effective.show ?? "picture";
  if (shows !== "picture") return { word: shows === "colour" ? "only colour" : "not shown" };
  if (!span?.effective.original) return { word: "no picture yet" };
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
