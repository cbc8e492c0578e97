/** The kind's own values of a grid as the chosen span has them, and ways to change them. */
import type { GridValues } from "../../../api/queries";
import { useWork } from "../../context";
import { withLayout } from "../../draft";

/** Arrangements in which each picture keeps its own ratio. */
export const OWN_RATIOS: readonly string[] = ["justified", "masonry"];

export function useGrid() {
  const { span, handle, reading, error } = useWork();
  const here = reading.layout.find((s) => s.letter === span.letter);
  const own = handle.draft.placement.layout[span.letter] ?? {};
  const group = (name: string | undefined) => name && `grid ${name} ${span.letter}`;
  return {
    // what was just set shows at once, before its reading is here
    values: here && ({ ...here.values, ...own } as GridValues),
    own: (field: string) => field in own,
    from: (field: string) => here?.origin[field],
    set: (set: Partial<GridValues>, name?: string) =>
      handle.change((d) => withLayout(d, span.letter, set), group(name)),
    reset: (fields: readonly string[]) =>
      handle.change((d) => withLayout(d, span.letter, Object.fromEntries(fields.map((f) => [f, undefined])))),
    problem: (field: string) =>
      error?.problem.errors
        ?.find((e) => new RegExp(`layout\\.${span.letter}\\.${field}(\\.|$)`).test(e.field))
        ?.sentence.replace(/^[a-z_.0-9]+: /, ""),
  };
}
