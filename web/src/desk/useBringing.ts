/** Pictures that are dropped on the desk: each goes into the span that it was dropped on. */
import { useMemo } from "react";
import type { Look, Original } from "../api/queries";
import { type Upload, useUploads } from "../originals/useUploads";
import type { DraftHandle } from "./useDraft";

export interface Bringing {
  /** Give an original of the site to a span. */
  give: (letter: string, id: number, look: Look) => void;
  /**
   * Bring these files and show the first in a span, even if another is chosen meanwhile; the others
   * are there to choose.
   */
  bring: (letter: string, files: File[]) => void;
  /** What is on its way. */
  uploads: { list: Upload[]; dismiss: (upload: number) => void; clear: () => void };
}

export const lookOf = (o: Original): Look => ({ focal: o.focal, areas: o.areas });

export function useBringing(siteId: number, handle: DraftHandle): Bringing {
  const { list, bring: upload, dismiss, clear } = useUploads(siteId);
  const { edit, part } = handle;
  return useMemo(() => {
    const give = (letter: string, id: number, look: Look) =>
      edit({ kind: "original", part, letter, original: id }, { [id]: look });
    return {
      give,
      bring: async (letter, files) => {
        const [first] = upload(files);
        const o = await first?.original;
        if (o) give(letter, o.id, lookOf(o));
      },
      uploads: { list, dismiss, clear },
    };
  }, [list, upload, dismiss, clear, edit, part]);
}
