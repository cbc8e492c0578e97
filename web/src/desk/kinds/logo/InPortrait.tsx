/** Another cut for viewports that are at least as high as they are wide, in the same box. */
import { Select } from "@mantine/core";
import type { LogoValues } from "../../../api/queries";
import { useWork } from "../../context";
import { useVariant } from "../../ground/useVariant";
import { ValueRow } from "../../ground/ValueRow";
import { logoOf } from "./own";

const SAME = "same";

export function InPortrait({ cuts }: { cuts: LogoValues["cuts"] }) {
  const { reading, originals } = useWork();
  const { shown, own, from, say, usual, reset } = useVariant(["portrait"]);
  const names = new Map(originals.map((o) => [o.id, o.name]));
  const turned = logoOf(reading)?.portrait ?? [];
  const seen = turned.map(([a, b]) => `${a}–${b}`).join(", ");
  return (
    <ValueRow label="In portrait" own={own} from={from} reset={reset}>
      <Select
        size="xs"
        aria-label="Cut in portrait orientation"
        allowDeselect={false}
        value={shown === null ? SAME : String(shown)}
        onChange={(v) =>
          v && (v === SAME ? usual() : say({ show: "picture", original: Number(v) }))
        }
        data={[
          { value: SAME, label: "the same cut" },
          ...cuts.map((c) => ({
            value: String(c.original),
            label: names.get(c.original) ?? "a picture that is gone",
          })),
        ]}
      />
      <span className="soft">
        {seen ? `typical screens stand upright at ${seen}` : "typical screens lie at every width"}
      </span>
    </ValueRow>
  );
}
