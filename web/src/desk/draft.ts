/** A placement as it stands under the designer's hand, and changes of it, as plain functions. */
import type { Look, Part, PlacementBody, Treatment, Treatments } from "../api/queries";
import { lineOf, type UndoAction, type Undoable, undoable } from "../ui/undo";
import { inOrder, type When } from "./parts";

export interface Draft {
  placement: PlacementBody;
  looks: Record<string, Look>;
}

export type History = Undoable<Draft>;
export type HistoryAction = UndoAction<Draft>;
export const history = undoable<Draft>;

/** Versions as the server has them: `drafts[0]` is at position `first`. */
export interface Synced {
  drafts: Draft[];
  first: number;
}

/**
 * What the server has to be told so that its history is this line. Undefined where the two have
 * nothing in common.
 */
export function historyToSave(state: History, synced: Synced | undefined) {
  const line = lineOf(state);
  if (!synced) return undefined;
  const dropped = synced.drafts.indexOf(line[0] as Draft);
  if (dropped < 0) return undefined;
  const theirs = synced.drafts.slice(dropped);
  let same = 0;
  while (same < line.length && line[same] === theirs[same]) same++;
  const first = synced.first + dropped;
  return {
    keep: first + same - 1,
    add: line.slice(same),
    at: first + state.past.length,
    first,
    line,
  };
}

/** A part that says nothing yet. */
export const NEW_PART: Part = {
  role: null,
  key: null,
  of: null,
  when: [],
  item: null,
  alt: null,
  way: null,
  treatments: {},
  ladders: {},
};

export const partOf = (draft: Draft, part: number): Part => draft.placement.parts[part] ?? NEW_PART;

/** What a part sets itself, by letter. */
export const treatmentsOf = (draft: Draft, part: number): Treatments =>
  partOf(draft, part).treatments;

/** The draft with other values of one part. */
export function withPart(draft: Draft, part: number, values: Partial<Part>): Draft {
  const parts = draft.placement.parts.map((p, i) => (i === part ? { ...p, ...values } : p));
  return { ...draft, placement: { ...draft.placement, parts } };
}

/** The draft with other values of the placement itself. */
export const withPlacement = (draft: Draft, values: Partial<PlacementBody>): Draft => ({
  ...draft,
  placement: { ...draft.placement, ...values },
});

/** What the kind itself is told per span; a value of undefined is handed down again. */
export function withLayout(draft: Draft, letter: string, values: Record<string, unknown>): Draft {
  const { layout } = draft.placement;
  const merged = { ...layout[letter], ...values };
  const own = Object.fromEntries(
    Object.entries(merged).filter(([, v]) => v !== undefined && v !== null),
  );
  return withPlacement(draft, { layout: { ...layout, [letter]: own } as PlacementBody["layout"] });
}

/** What the kind is told per span under conditions, over what usually holds. */
export function withLayoutUnder(
  draft: Draft,
  when: When,
  letter: string,
  values: Record<string, unknown>,
): Draft {
  const { layout_under } = draft.placement;
  const before = layout_under.find((u) => u.when.join() === when.join())?.layout ?? {};
  const merged = { ...before[letter], ...values };
  const own = Object.fromEntries(
    Object.entries(merged).filter(([, v]) => v !== undefined && v !== null),
  );
  const layout = Object.fromEntries(
    Object.entries({ ...before, [letter]: own }).filter(([, o]) => Object.keys(o ?? {}).length),
  );
  const others = layout_under.filter((u) => u.when.join() !== when.join());
  const mine = Object.keys(layout).length ? [{ when, layout }] : [];
  return withPlacement(draft, {
    layout_under: [...others, ...mine] as PlacementBody["layout_under"],
  });
}

/** A part more, or one less. */
export const withRole = (
  draft: Draft,
  role: NonNullable<Part["role"]>,
  part: Part | undefined,
): Draft => {
  const others = draft.placement.parts.filter((p) => p.role !== role);
  return withPlacement(draft, { parts: inOrder(part ? [...others, { ...part, role }] : others) });
};

/** Set or, with undefined, hand down again fields of one span's treatment. */
export function withTreatment(
  draft: Draft,
  part: number,
  letter: string,
  values: Treatment,
): Draft {
  const before = treatmentsOf(draft, part);
  const merged = { ...before[letter], ...values };
  const own = Object.fromEntries(
    Object.entries(merged).filter(([, v]) => v !== undefined && v !== null),
  );
  return withPart(draft, part, { treatments: { ...before, [letter]: own } });
}

/**
 * Set or hand down again what holds for all parts in one span; what some of them say otherwise
 * there gives way, so that it does hold for all.
 */
export function withCommon(draft: Draft, letter: string, values: Treatment): Draft {
  const { common, parts } = draft.placement;
  const merged = { ...common[letter], ...values };
  const own = Object.fromEntries(
    Object.entries(merged).filter(([, v]) => v !== undefined && v !== null),
  );
  const without = (t: Treatment) =>
    Object.fromEntries(Object.entries(t).filter(([k]) => !(k in values)));
  return withPlacement(draft, {
    common: { ...common, [letter]: own },
    parts: parts.map((p) => {
      const mine = p.of == null ? p.treatments[letter] : undefined;
      return mine ? { ...p, treatments: { ...p.treatments, [letter]: without(mine) } } : p;
    }),
  });
}

export type Item = NonNullable<Part["item"]>;
const NO_ITEM: Item = { title: "", text: "", href: null, wide: false };

/** What belongs to one picture of many beside itself. */
export const withItem = (draft: Draft, part: number, values: Partial<Item>): Draft =>
  withPart(draft, part, { item: { ...NO_ITEM, ...partOf(draft, part).item, ...values } });

const isBare = (p: Part) => !p.item && !Object.values(p.treatments).some((t) => t.original != null);

/**
 * More items, each with its picture for every width; they take the place of one that has none yet.
 */
export function withItems(
  draft: Draft,
  widest: string,
  originals: readonly { id: number; look: Look }[],
): Draft {
  const { parts } = draft.placement;
  const kept = parts.length === 1 && parts[0] && isBare(parts[0]) ? [] : parts;
  const more = originals.map(({ id }) => ({
    ...NEW_PART,
    treatments: { [widest]: { original: id } },
  }));
  const looks = Object.fromEntries(originals.map(({ id, look }) => [id, draft.looks[id] ?? look]));
  const looked = { ...draft, looks: { ...draft.looks, ...looks } };
  return withPlacement(looked, { parts: inOrder([...kept, ...more]) });
}

/**
 * An item once more after itself, with all its rules; what stands in for it under conditions stays
 * with the first.
 */
export function withCopy(draft: Draft, part: number): Draft {
  const parts = [...draft.placement.parts];
  parts.splice(part + 1, 0, { ...partOf(draft, part), key: null });
  return withPlacement(draft, { parts });
}

/** Without one item; the last one leaves an empty one behind. */
export function withoutItem(draft: Draft, part: number): Draft {
  const rest = inOrder(draft.placement.parts.filter((_, i) => i !== part));
  return withPlacement(draft, { parts: rest.length ? rest : [NEW_PART] });
}

/** An item in another place among the others. */
export function withMoved(draft: Draft, from: number, to: number): Draft {
  const parts = [...draft.placement.parts];
  const [moved] = parts.splice(from, 1);
  if (!moved) return draft;
  parts.splice(to, 0, moved);
  return withPlacement(draft, { parts: inOrder(parts) });
}
