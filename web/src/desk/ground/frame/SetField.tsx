/**
 * A set of placements of which exactly one shows at every width: two heads, one for wide and one
 * for narrow screens.
 */
import { TextInput } from "@mantine/core";
import { useWork } from "../../context";
import { withPlacement } from "../../draft";
import field from "../Field.module.css";

export function SetField() {
  const { handle, error, reading } = useWork();
  const { one_of } = handle.draft.placement;
  const wrong = error?.problem.errors?.find((e) => e.field.endsWith("one_of"))?.sentence;
  const runs = reading.one_of?.runs ?? [];
  const fine = runs.every((r) => r.verdict === "one");
  return (
    <div className={field.field} data-own={one_of || undefined} data-spot="one_of">
      <div className={field.label}>Stand-ins</div>
      <div className={field.control}>
        <TextInput
          aria-label="Set of which just one shows"
          placeholder="none; name a group"
          maxLength={40}
          value={one_of ?? ""}
          error={wrong}
          onChange={(e) => {
            const name = e.currentTarget.value;
            handle.change((d) => withPlacement(d, { one_of: name || null }), "set");
          }}
          styles={{ input: { width: 170 } }}
        />
        <span className="soft">
          {!one_of
            ? "placements of one group stand in for each other"
            : fine
              ? "exactly one shows at every width"
              : "not exactly one shows everywhere: see the band"}
        </span>
      </div>
      <div className={field.origin} />
    </div>
  );
}
