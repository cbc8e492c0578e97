import classes from "./Letter.module.css";

const COLOURS = [
  "#7a3e6d",
  "#8a6414",
  "#35704a",
  "#2d5a94",
  "#a04524",
  "#4d4f9a",
  "#5f6b1f",
  "#23707a",
];

export const spanColour = (letter: string) =>
  COLOURS[(letter.charCodeAt(0) - 65) % COLOURS.length] as string;

/** A span's letter. Whatever belongs to a span bears it. */
export function Letter({ of, small }: { of: string; small?: boolean }) {
  return (
    <span
      className={classes.letter}
      data-small={small || undefined}
      style={{ background: spanColour(of) }}
    >
      {of}
    </span>
  );
}
