/** The place among the pictures of the delivered page where the chosen part shows. */
import { useWork } from "../../context";
import { partOf } from "../../draft";

export function usePictureOnPage(): number {
  const { handle, reading } = useWork();
  // what shows in portrait does so in the place of the first
  return partOf(handle.draft, reading.part).role === "portrait" ? 0 : reading.part;
}
