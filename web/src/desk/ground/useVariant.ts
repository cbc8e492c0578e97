/** What shows in the place of the chosen part under conditions, as the chosen span has it. */
import type { Look, Treatment } from "../../api/queries";
import { useWork } from "../context";
import { usualAt, variantAt, type When } from "../parts";

export function useVariant(when: When) {
  const { handle, reading, span } = useWork();
  const { parts } = handle.draft.placement;
  const at = usualAt(parts, handle.part);
  const index = variantAt(parts, at, when);
  const here = reading.parts[index]?.spans.find((s) => s.letter === span.letter);
  const shows = !here || here.is_usual ? "usual" : here.effective.show;
  const isShown = shows === "picture";
  const set = async (
    treatment: Treatment,
    gone: string[] = [],
    looks: Record<number, Look> = {},
  ) => {
    const { letter } = span;
    const made = await handle.edit(
      { kind: "variant", part: at, when, letter, treatment, gone },
      looks,
    );
    return made && variantAt(made.parts, at, when);
  };
  return {
    /** Its place; -1 where there is none. */
    index,
    /** The original that it shows; null where the usual one shows. */
    shown: isShown ? (here?.effective.original ?? null) : null,
    /** What shows here; "usual" where it is no other than usual. */
    shows: shows as "usual" | "picture" | "colour" | "nothing",
    own: !!here?.own.some((f) => f === "show" || f === "original"),
    from: here?.origin.original,
    /** Sets values here, with what originals look like that come with them; its place. */
    say: (values: Treatment, looks?: Record<number, Look>) => set(values, [], looks),
    /** From here on the usual one shows. */
    usual: () => set({ show: "usual" }, ["original"]),
    reset: () => set({}, ["show", "original"]),
  };
}
