/** What shows in the place of the chosen part under conditions, as the chosen span has it. */
import type { Look, Treatment } from "../../api/queries";
import { useWork } from "../context";
import { withTreatment } from "../draft";
import { usualAt, variantAt, type When } from "../parts";
import { withoutIdle, withVariant } from "../variants";

export function useVariant(when: When) {
  const { handle, reading, span } = useWork();
  const { parts } = handle.draft.placement;
  const at = usualAt(parts, handle.part);
  const index = variantAt(parts, at, when);
  const here = reading.parts[index]?.spans.find((s) => s.letter === span.letter);
  const isShown = here?.effective.show === "picture";
  return {
    /** Its place; -1 where there is none. */
    index,
    /** The original that it shows; null where the usual one shows. */
    shown: isShown ? here.effective.original : null,
    own: !!here?.own.some((f) => f === "show" || f === "original"),
    from: here?.origin.original,
    /** Sets values here, with what originals look like that come with them; its place. */
    say: (values: Treatment, looks: Record<number, Look> = {}) => {
      handle.change((d) => {
        const said = withVariant(d, at, when, span.letter, values);
        return { ...said, looks: { ...looks, ...said.looks } };
      });
      return index < 0 ? parts.length : index;
    },
    /** From here on the usual one shows. */
    usual: () =>
      handle.change((d) =>
        withoutIdle(
          withTreatment(d, index, span.letter, { show: "usual", original: undefined }),
          index,
        ),
      ),
    reset: () =>
      handle.change((d) =>
        withoutIdle(
          withTreatment(d, index, span.letter, { show: undefined, original: undefined }),
          index,
        ),
      ),
  };
}
