/** The kind's own values as the chosen span has them, and ways to change them. */
import { featuresOf } from "../conditions";
import { useWork } from "../context";
import { useLaying } from "./useLaying";

export function useKindValues<Values extends object>() {
  const { span, handle, reading, error, conditions } = useWork();
  const lay = useLaying();
  const here = reading.layout.find((s) => s.letter === span.letter);
  const { layout, layout_under } = handle.draft.placement;
  const when = featuresOf(conditions);
  const under = layout_under.find((u) => u.when.join() === when.join())?.layout[span.letter] ?? {};
  // what can be another under conditions is its own only where it is one
  const usual = Object.entries(layout[span.letter] ?? {}).filter(
    ([f]) => !when.length || !reading.values[f]?.under,
  );
  const own: Record<string, unknown> = { ...Object.fromEntries(usual), ...under };
  const group = (name: string | undefined) =>
    name && `${handle.draft.placement.kind} ${name} ${span.letter}`;
  return {
    // what was just set shows at once, before its reading is here
    values: here && ({ ...here.values, ...own } as Values),
    notes: here?.notes ?? [],
    own: (field: string) => field in own,
    /** All that the span sets itself of them. */
    ownValues: own,
    from: (field: string) => {
      const from = here?.origin[field];
      if (!from || !when.length) return from;
      // what cannot be another under conditions is as it is handed down
      if (!reading.values[field]?.under) return { ...from, of: "kind" as const };
      const over = layout_under.some(
        (u) =>
          u.when.every((f) => when.includes(f)) &&
          Object.values(u.layout).some((own) => own && field in own),
      );
      return over ? from : { ...from, of: "usual" as const };
    },
    set: (set: Partial<Values>, name?: string) =>
      handle.change((d) => lay(d, span.letter, set as Record<string, unknown>), group(name)),
    reset: (fields: readonly string[]) =>
      handle.change((d) =>
        lay(d, span.letter, Object.fromEntries(fields.map((f) => [f, undefined]))),
      ),
    /**
     * What is wrong with a value, as the server says it; without a field, with the values together.
     */
    problem: (field: string) => {
      const said = field ? `\\.${field}(\\.|$)` : "\\.?$";
      const all = error?.problem.errors ?? [];
      const of = "layout(_under\\.\\d+\\.layout)?\\.";
      const here = all.find((e) => new RegExp(`${of}${span.letter}${said}`).test(e.field));
      const found = here ?? all.find((e) => new RegExp(`${of}[A-Z]${said}`).test(e.field));
      // beside its field it need not be named
      return found?.sentence.replace(/^[a-z_.0-9]+: /, "");
    },
  };
}
