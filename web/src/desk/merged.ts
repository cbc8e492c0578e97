/** A whole reading with what has moved since. */
import type { Moving, WholeReading } from "../api/queries";

export const merged = (whole: WholeReading, moving: Moving): WholeReading => ({
  ...whole,
  pane: moving.pane,
  one_of: moving.one_of,
  words: moving.words && { ...moving.words, detail: whole.words?.detail ?? null },
  parts: whole.parts.map((part, i) => {
    const moved = moving.parts[i];
    if (!moved) return part;
    const by = new Map(moved.spans.map((s) => [s.letter, s]));
    return {
      ...part,
      spans: part.spans.map((s) => ({ ...s, ...by.get(s.letter) })),
      bands: [...moved.bands, ...part.bands.filter((b) => b.kind !== "area" && b.kind !== "frame")],
      safe: moved.safe,
    };
  }),
});
