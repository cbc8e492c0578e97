/** The original that the chosen span shows, and how it is looked at and treated. */
import type { Look, Original, Treatment } from "../../../api/queries";
import { type Area, renaming } from "../../../picture/areas";
import { useWork } from "../../context";
import { withAreaRenamed } from "../../draft";
import { lookOf } from "../../useBringing";

export interface Aimed {
  original: Original;
  look: Look;
}

export function useAimed() {
  const { span, reading, handle, originals } = useWork();
  const original = originals.find((o) => o.id === span.effective.original);
  const aimed: Aimed | undefined = original && {
    original,
    look: handle.draft.looks[original.id] ?? lookOf(original),
  };
  const set = (values: Treatment, group?: string) => handle.treat(span.letter, values, group);
  const setFocal = (focal: [number, number], group?: string) =>
    aimed && handle.look(aimed.original.id, { ...aimed.look, focal }, group && `${group} ${aimed.original.id}`);
  const setAreas = (areas: Area[], group?: string) => {
    if (!aimed) return;
    const { id } = aimed.original;
    const named = renaming(aimed.look.areas, areas);
    const shown = (part: number, letter: string) =>
      reading.parts[part]?.spans.find((s) => s.letter === letter)?.effective.original;
    handle.change((d) => {
      const looked = { ...d, looks: { ...d.looks, [id]: { ...aimed.look, areas } } };
      return named ? withAreaRenamed(looked, id, shown, ...named) : looked;
    }, group && `${group} ${id}`);
  };
  return { aimed, set, setFocal, setAreas };
}
