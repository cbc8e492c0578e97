/** The words of the placement as the chosen span has them, and ways to change them. */
import type { BannerValues, Words } from "../../../api/queries";
import { useWork } from "../../context";
import { withLayout, withPlacement } from "../../draft";

export const NO_WORDS: Words = { heading: "", text: "", buttons: [], level: 2 };

export function useWords() {
  const { span, handle, reading, error } = useWork();
  const here = reading.words?.spans.find((s) => s.letter === span.letter);
  const own = handle.draft.placement.layout[span.letter] ?? {};
  // what was just set shows at once, before its reading is here
  const values = here && ({ ...here.values, ...own } as BannerValues);
  const words = handle.draft.placement.words ?? NO_WORDS;
  const group = (name: string | undefined) => name && `words ${name} ${span.letter}`;
  return {
    here,
    values,
    words,
    detail: reading.words?.detail?.letter === span.letter ? reading.words.detail : undefined,
    own: (field: string) => field in own,
    from: (field: string) => here?.origin[field],
    set: (set: Partial<BannerValues>, name?: string) =>
      handle.change((d) => withLayout(d, span.letter, set), group(name)),
    reset: (fields: readonly string[]) =>
      handle.change((d) => withLayout(d, span.letter, Object.fromEntries(fields.map((f) => [f, undefined])))),
    setWords: (set: Partial<Words>, name?: string) =>
      handle.change(
        (d) => withPlacement(d, { words: { ...(d.placement.words ?? NO_WORDS), ...set } }),
        name && `words ${name}`,
      ),
    /** What is wrong with a value, as the server says it. */
    problem: (field: string) => {
      const all = error?.problem.errors ?? [];
      const here = all.find((e) => e.field.includes(`layout.${span.letter}.${field}`));
      const found = here ?? all.find((e) => new RegExp(`layout\\.[A-Z]\\.${field}(\\.|$)`).test(e.field));
      // beside its field it need not be named
      return found?.sentence.replace(/^[a-z_.0-9]+: /, "");
    },
    wordsProblem: (field: string) => error?.problem.errors?.find((e) => e.field.includes(`words.${field}`))?.sentence,
  };
}
