/** The words of the placement as the chosen span has them, and ways to change them. */
import type { BannerValues, Words } from "../../../api/queries";
import { useWork } from "../../context";
import { withPlacement } from "../../draft";
import { useKindValues } from "../useKindValues";

export const NO_WORDS: Words = { heading: "", text: "", buttons: [], level: null };

export function useWords() {
  const { span, handle, reading, error } = useWork();
  const here = reading.words?.spans.find((s) => s.letter === span.letter);
  const kind = useKindValues<BannerValues>();
  return {
    ...kind,
    here,
    values: here && kind.values,
    words: handle.draft.placement.words ?? NO_WORDS,
    detail: reading.words?.detail?.letter === span.letter ? reading.words.detail : undefined,
    setWords: (set: Partial<Words>, name?: string) =>
      handle.change(
        (d) => withPlacement(d, { words: { ...(d.placement.words ?? NO_WORDS), ...set } }),
        name && `words ${name}`,
      ),
    wordsProblem: (field: string) =>
      error?.problem.errors?.find((e) => e.field.includes(`words.${field}`))?.sentence,
  };
}
