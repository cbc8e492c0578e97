/** A whole reading with what has moved since. */
import type { Moving, WholeReading } from "../api/queries";

type Read = WholeReading["parts"][string];

/** Kinds of bands that are told while something moves. */
const MOVING = ["area", "seen", "frame"];

function moved(part: Read, since: Moving["parts"][string] | undefined): Read {
  if (!since) return part;
  const by = new Map(since.spans.map((s) => [s.letter, s]));
  return {
    ...part,
    spans: part.spans.map((s) => ({ ...s, ...by.get(s.letter) })),
    bands: [...since.bands, ...part.bands.filter((b) => !MOVING.includes(b.kind))],
    safe: since.safe,
  };
}

export const merged = (whole: WholeReading, moving: Moving): WholeReading => ({
  ...whole,
  pane: moving.pane,
  one_of: moving.one_of,
  verdicts: moving.verdicts,
  words: moving.words && { ...moving.words, detail: whole.words?.detail ?? null },
  // how many findings each has, and the ratio that loses least, are told when it rests
  items: moving.items && {
    ...moving.items,
    items: whole.items?.items ?? [],
    ratio: whole.items?.ratio ?? null,
    sharpest: whole.items?.sharpest ?? null,
    largest: whole.items?.largest ?? "",
    weight: whole.items?.weight ?? null,
    crop_ratios: whole.items?.crop_ratios ?? {},
  },
  own: moving.own,
  parts: Object.fromEntries(
    Object.entries(whole.parts).map(([i, part]) => [i, moved(part, moving.parts[i])]),
  ),
});
