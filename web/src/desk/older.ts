import type { Work } from "./context";

/** What stays unsaved until somebody does something about it. */
const UNSAVED = ["retrying", "refused", "conflict"];

/** Whether an export is of the placement as it was, and not as it stands on the desk. */
export const isOlder = ({ delivery, handle }: Pick<Work, "delivery" | "handle">) =>
  !delivery?.is_current || UNSAVED.includes(handle.saving.kind);
