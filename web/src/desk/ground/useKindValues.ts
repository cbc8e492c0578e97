/** The kind's own values as the chosen span has them, and ways to change them. */
import { useWork } from "../context";
import { withLayout } from "../draft";

export function useKindValues<Values extends object>() {
  const { span, handle, reading, error } = useWork();
  const here = reading.layout.find((s) => s.letter === span.letter);
  const own = handle.draft.placement.layout[span.letter] ?? {};
  const group = (name: string | undefined) =>
    name && `${handle.draft.placement.kind} ${name} ${span.letter}`;
  return {
    // what was just set shows at once, before its reading is here
    values: here && ({ ...here.values, ...own } as Values),
    notes: here?.notes ?? [],
    own: (field: string) => field in own,
    from: (field: string) => here?.origin[field],
    set: (set: Partial<Values>, name?: string) =>
      handle.change((d) => withLayout(d, span.letter, set as Record<string, unknown>), group(name)),
    reset: (fields: readonly string[]) =>
      handle.change((d) =>
        withLayout(d, span.letter, Object.fromEntries(fields.map((f) => [f, undefined]))),
      ),
    /**
     * What is wrong with a value, as the server says it; without a field, with the values together.
     */
    problem: (field: string) => {
      const said = field ? `\\.${field}(\\.|$)` : "\\.?$";
      const all = error?.problem.errors ?? [];
      const here = all.find((e) => new RegExp(`layout\\.${span.letter}${said}`).test(e.field));
      const found = here ?? all.find((e) => new RegExp(`layout\\.[A-Z]${said}`).test(e.field));
      // beside its field it need not be named
      return found?.sentence.replace(/^[a-z_.0-9]+: /, "");
    },
  };
}
