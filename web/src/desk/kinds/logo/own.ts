/** What a logo reads of its own. */
import type { Reading } from "../../../api/queries";

/** Null where a placement is of another kind. */
export const logoOf = (reading: Pick<Reading, "own">) =>
  reading.own?.kind === "logo" ? reading.own : null;
