/** What kind of placement this is; as another kind it keeps what both know. */
import { SegmentedControl } from "@mantine/core";
import { useWork } from "../../context";
import { KINDS } from "../../kinds/kinds";
import { useKind } from "../../useKind";
import field from "../Field.module.css";

export function KindField() {
  const { handle } = useWork();
  const { kind } = handle.draft.placement;
  const { begin, busy, refused } = useKind();
  return (
    <div className={field.field}>
      <div className={field.label}>Kind</div>
      <div className={field.control}>
        <SegmentedControl
          size="xs"
          aria-label="Kind of placement"
          value={kind}
          disabled={busy}
          onChange={(to) => void begin(to)}
          data={KINDS.map((k) => k.name)}
        />
        {refused}
      </div>
    </div>
  );
}
