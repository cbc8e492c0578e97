/** Pictures that are dropped on a page: each is brought as an original and becomes a placement that shows it. */
import type { PlacementBody } from "../api/queries";
import { useMakePlacement } from "../api/queries";
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
export const showing = (name: string, widest: string, original: number): PlacementBody =>
  ({ name, kind: "picture", lead: true, parts: [{ treatments: { [widest]: { original } } }] }) as PlacementBody;

export function useDropped(siteId: number, pageId: number, widest: string) {
  const uploads = useUploads(siteId);
  const make = useMakePlacement(siteId);
  return {
    bring: (files: File[]) =>
      uploads.bring(files, (o) => make.mutate({ page: pageId, placement: showing(spoken(o.name), widest, o.id) })),
    going: uploads.list.filter((u) => u.state !== "here"),
    dismiss: uploads.dismiss,
    failed: make.error?.message,
  };
}
