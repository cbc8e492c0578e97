/**
 * The kinds of placements, each in a folder of its own that says what it is called; the panes and
 * the steps ask here.
 */

/** `index.ts` of a kind's folder. */
export interface Kind {
  name: string;
  /** Kinds are listed by it. */
  order: number;
  /** What it is called where one is chosen, and what it is for. */
  label: string;
  help: string;
  /** Whether a plain picture becomes it to have words. */
  forWords?: boolean;
  /**
   * What a pane has to do once it shows new markup; `chosen` is the item that is worked on, if
   * there are many.
   */
  begin?: (spot: Element, chosen: number | undefined) => void;
  /** The style sheet that keeps a pane at rest. */
  resting?: string;
}

const found = import.meta.glob<Kind>("./*/index.ts", { eager: true, import: "default" });

export const KINDS: readonly Kind[] = Object.values(found).sort((a, b) => a.order - b.order);

/** The kind with which words come. */
export const FOR_WORDS = KINDS.find((k) => k.forWords)?.name ?? "";

/** What the kinds that stand in a pane or on a page have to do there. */
export function begin(spot: Element, chosen?: number) {
  for (const kind of KINDS) kind.begin?.(spot, chosen);
}

export const RESTING = KINDS.map((k) => k.resting ?? "").join("\n");
