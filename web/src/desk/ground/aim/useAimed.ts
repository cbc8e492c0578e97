/** The original that the chosen span shows, and how it is looked at and treated. */
import type { Look, Original, Treatment } from "../../../api/queries";
import { type Area, renaming } from "../../../picture/areas";
import { useWork } from "../../context";
import { lookOf } from "../../useBringing";

export interface Aimed {
  original: Original;
  look: Look;
}

export function useAimed() {
  const { span, handle, originals } = useWork();
  const original = originals.find((o) => o.id === span.effective.original);
  const aimed: Aimed | undefined = original && {
    original,
    look: handle.draft.looks[original.id] ?? lookOf(original),
  };
  const set = (values: Treatment, group?: string) => handle.treat(span.letter, values, group);
  const setFocal = (focal: [number, number], group?: string) =>
    aimed &&
    handle.look(
      aimed.original.id,
      { ...aimed.look, focal },
      group && `${group} ${aimed.original.id}`,
    );
  const setAreas = (areas: Area[], group?: string) => {
    if (!aimed) return;
    const { id } = aimed.original;
    const named = renaming(aimed.look.areas, areas);
    const looks = { [id]: { ...aimed.look, areas } };
    if (named)
      handle.edit({ kind: "area", original: id, before: named[0], after: named[1] }, looks);
    else
      handle.change((d) => ({ ...d, looks: { ...d.looks, ...looks } }), group && `${group} ${id}`);
  };
  return { aimed, set, setFocal, setAreas };
}
