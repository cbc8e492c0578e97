/**
 * Pictures that are dropped on a page: each is brought as an original and becomes a placement that
 * shows it.
 */
import { useState } from "react";
import { placementOf, useMakePlacement } from "../api/queries";
import { useUploads } from "../originals/useUploads";

/** A file's name as people would say it: `harbour_steps-final.JPG` is "harbour steps final". */
export const spoken = (file: string) => {
  const said = file
    .replace(/\.[^.]+$/, "")
    .replace(/[_\-\s]+/g, " ")
    .trim()
    .slice(0, 80);
  return said ? said.charAt(0).toUpperCase() + said.slice(1) : "Picture";
};

/** A placement that shows one original at every width: the widest span, `widest`, hands it down. */
export const showing = (name: string, widest: string, original: number) =>
  placementOf(name, { [widest]: { original } });

export function useDropped(siteId: number, pageId: number, widest: string) {
  const uploads = useUploads(siteId);
  const make = useMakePlacement(siteId);
  const [failed, setFailed] = useState<string>();
  /** In the order in which they were dropped, whichever arrives first. */
  const bring = async (files: File[]) => {
    setFailed(undefined);
    for (const { id, original } of uploads.bring(files)) {
      const o = await original;
      if (!o) continue;
      try {
        await make.mutateAsync({ page: pageId, placement: showing(spoken(o.name), widest, o.id) });
      } catch (e) {
        setFailed(
          `${o.name} is among the originals, but no placement came of it. ${(e as Error).message}`,
        );
      }
      uploads.dismiss(id);
    }
  };
  return { bring, uploads, failed };
}
