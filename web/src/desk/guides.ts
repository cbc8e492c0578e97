/**
 * Guides over map and panes, and whether what lies on a picture is seen through while it is
 * aligned: for this visit only.
 */
import { useSyncExternalStore } from "react";

export interface Guides {
  lines: "none" | "centre" | "thirds" | "safe";
  through: boolean;
  /** Whether slides move in the panes as they do on the page. */
  moving: boolean;
}

let now: Guides = { lines: "none", through: false, moving: false };
const heard = new Set<() => void>();

export function setGuides(values: Partial<Guides>) {
  now = { ...now, ...values };
  for (const hear of heard) hear();
}

const hear = (tell: () => void) => {
  heard.add(tell);
  return () => heard.delete(tell);
};

export const useGuides = (): Guides => useSyncExternalStore(hear, () => now);

const AT: Record<Guides["lines"], number[]> = {
  none: [],
  safe: [],
  centre: [0.5],
  thirds: [1 / 3, 2 / 3],
};

/** Where lines run, as fractions of a side. */
export const linesOf = (guides: Guides) => AT[guides.lines];

/**
 * The style sheet that draws guides over every picture of a pane; `px` is one px of the screen in
 * px of the pane.
 */
export function guidesCss(guides: Guides, called: string, px: number): string {
  const at = linesOf(guides);
  const lines = (axis: string) =>
    at.map(
      (f) =>
        `linear-gradient(to ${axis}, transparent calc(${f * 100}% - ${px}px), rgb(255 255 255 / 85%) 0 calc(${f * 100}%), rgb(0 0 0 / 70%) 0 calc(${f * 100}% + ${px}px), transparent 0)`,
    );
  const drawn = at.length
    ? `picture::before { content: ""; position: absolute; inset: 0; z-index: 3; background: ${[...lines("right"), ...lines("bottom")].join(", ")}; }
       picture[data-role]::before { content: none; }`
    : "";
  const through = guides.through
    ? `.${called}-words, picture[data-role] { opacity: .45; } .${called}-picture::after { opacity: .5; }`
    : "";
  return `${drawn}\n${through}`;
}
