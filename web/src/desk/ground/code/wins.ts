/** At which widths a line of code says what is so. */
import type { Schemas } from "../../../api/client";
import type { Reading } from "../../../api/queries";

/** Whole widths, both ends included. */
export interface Widths {
  first: number;
  last: number;
}

type Line = Pick<Schemas["CodeLine"], "text" | "spans">;

/** What ends in the ending of a picture, as far as it may be part of a file's name. */
const NAMED = /[^\s"'(),]+\.(?:avif|webp|jpg|png|svg)\b/g;

/**
 * Tells at which widths a line wins: of one that names files those at which one of them is taken,
 * on screens of this density that know the formats which are seen; else those of its spans, of one
 * without a letter all.
 */
export function winner(reading: Reading, density: number): (line: Line) => Widths[] {
  const runs = new Map<string, Widths[]>();
  for (const f of reading.files) for (const x of f.formats) runs.set(x.name, []);
  for (const { bands } of Object.values(reading.parts))
    for (const band of bands)
      if (band.kind === "sharp" && band.density === density)
        for (const run of band.taken) runs.get(run.name)?.push(run);
  /** A name stands behind a folder or an address, and may have folders of its own. */
  const known = (address: string) => {
    for (let name = address; ; name = name.slice(name.indexOf("/") + 1)) {
      const found = runs.get(name);
      if (found || !name.includes("/")) return found;
    }
  };
  return ({ text, spans }) => {
    const named = [...text.matchAll(NAMED)].map(([address]) => known(address));
    if (named.some(Boolean)) return named.flatMap((mine) => mine ?? []);
    const letters = spans ?? [];
    return reading.spans.filter((s) => letters.length === 0 || letters.includes(s.letter));
  };
}

export const isAmong = (width: number, runs: readonly Widths[]) =>
  runs.some((r) => r.first <= width && width <= r.last);
