/** A draft with what a pull sets, as the core says it. */
import type { Treatment } from "../../../api/queries";
import { type Draft, withCommon, withTreatment } from "../../draft";
import type { HandleReading, Pulled } from "./ask";

type Lay = (draft: Draft, letter: string, values: Record<string, unknown>) => Draft;

/** What a frame has, beside values of the kind. */
const OF_FRAME = new Set(["width", "height", "stands"]);

const undone = (fields: readonly string[]) => Object.fromEntries(fields.map((f) => [f, undefined]));

export function withPulled(draft: Draft, letter: string, found: Pulled, lay: Lay): Draft {
  const frame = undone(found.gone.filter((f) => OF_FRAME.has(f)));
  const layout = { ...found.layout, ...undone(found.gone.filter((f) => !OF_FRAME.has(f))) };
  const treatment = { ...found.treatment, ...frame } as Treatment;
  let out = draft;
  if (Object.keys(treatment).length)
    out = found.of_all
      ? withCommon(out, letter, treatment)
      : withTreatment(out, found.part, letter, treatment);
  return Object.keys(layout).length ? lay(out, letter, layout) : out;
}

/** Where a handle is along the axis that it is pulled along. */
export const placeOf = (h: HandleReading) => (h.axis === "x" ? h.x0 : h.y0);

/** The next place to stop at from one on, in a direction; undefined where there is none. */
export function nextStop(h: HandleReading, from: number, way: 1 | -1): number | undefined {
  const beyond = h.stops.map((s) => s.at).filter((at) => (at - from) * way > 0.5);
  return way > 0 ? Math.min(...beyond, Infinity) : Math.max(...beyond, -Infinity);
}

/** What is said of a handle to those who hear it: its value, how far it goes, and what is near. */
export function spoken(h: HandleReading, said: string): string {
  const bounds = `from ${Math.round(h.at_least)} to ${Math.round(h.at_most)} px`;
  const near = h.stops.find((s) => Math.abs(s.at - placeOf(h)) < 0.5);
  return [said, bounds, near?.words].filter(Boolean).join(", ");
}

/** As far apart handles are that can be told by a finger (WCAG 2.2, 2.5.8), in px of the screen. */
const APART_PX = 26;

/**
 * Handles that lie on one another where the stage is drawn to `scale` are put apart along their
 * edge: which of how many each is.
 */
export function apart(handles: readonly HandleReading[], scale: number): Map<string, number> {
  const out = new Map<string, number>();
  const placed: { h: HandleReading; n: number }[] = [];
  for (const h of handles) {
    const near = placed.filter(
      (p) => p.h.axis === h.axis && Math.abs(placeOf(p.h) - placeOf(h)) * scale < APART_PX,
    );
    const n = near.length;
    placed.push({ h, n });
    out.set(h.id, n);
  }
  return out;
}
