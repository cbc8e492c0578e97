import type { Original } from "../api/queries";
import { bytes, size } from "../ui/format";

/** What an original is, and where it is used. */
export function Facts({ original }: { original: Original }) {
  return (
    <dl>
      <dt>Size</dt>
      <dd>
        {size(original.width_px, original.height_px)}, {bytes(original.size_bytes)}, ratio{" "}
        {(original.width_px / original.height_px).toFixed(2)}:1
      </dd>
      <dt>Sharp to</dt>
      <dd>
        {original.sharp_2x} px wide at 2x, {original.sharp_1x} px at 1x. Px per inch change nothing
        on a screen.
      </dd>
      <dt>Kind</dt>
      <dd>
        {original.format.toUpperCase()}
        {original.alpha ? ", with transparency" : ""},{" "}
        {original.profile || "no profile, taken for sRGB"}
      </dd>
      <dt>Used in</dt>
      <dd>{original.used_in?.length ? original.used_in.join("; ") : "nothing yet"}</dd>
    </dl>
  );
}
