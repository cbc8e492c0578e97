/**
 * What lies behind a picture that does not fill its frame, or that can be seen through: a colour,
 * or the page.
 */
import { SegmentedControl } from "@mantine/core";
import { useWork } from "../../context";
import { Field } from "../Field";
import { Colour, type SetTreatment } from "./Colour";

export const NO_BACKGROUND = "none";
/** What a colour begins with where there was none. */
const FIRST = "#ffffff";

export function Behind({ set }: { set: SetTreatment }) {
  const { background } = useWork().span.effective;
  const none = background === NO_BACKGROUND;
  return (
    <Field field="background" label="Behind it">
      <SegmentedControl
        size="xs"
        aria-label="What lies behind it"
        value={none ? NO_BACKGROUND : "colour"}
        onChange={(v) => set({ background: v === NO_BACKGROUND ? NO_BACKGROUND : FIRST })}
        data={[
          { value: "colour", label: "a colour" },
          { value: NO_BACKGROUND, label: "nothing" },
        ]}
      />
      {!none && <Colour set={set} label="" />}
    </Field>
  );
}
