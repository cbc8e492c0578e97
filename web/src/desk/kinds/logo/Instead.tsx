/** Other cuts under conditions, in the same box. */
import { Select } from "@mantine/core";
import type { LogoValues } from "../../../api/queries";
import { capital } from "../../../ui/format";
import { whenWords } from "../../conditions";
import { useWork } from "../../context";
import { AnotherWhen, useSets } from "../../ground/aim/Instead";
import { useVariant } from "../../ground/useVariant";
import { ValueRow } from "../../ground/ValueRow";
import type { When } from "../../parts";
import { logoOf } from "./own";

const USUAL = "usual";

export function Instead({ cuts }: { cuts: LogoValues["cuts"] }) {
  const { shown, rest } = useSets();
  return (
    <>
      {shown.map((when) => (
        <InsteadRow key={when.join()} when={when} cuts={cuts} />
      ))}
      <AnotherWhen label="Another cut when…" sets={rest} />
    </>
  );
}

function InsteadRow({ when, cuts }: { when: When; cuts: LogoValues["cuts"] }) {
  const { reading, originals } = useWork();
  const { shown, own, from, say, usual, reset } = useVariant(when);
  const names = new Map(originals.map((o) => [o.id, o.name]));
  const turned = logoOf(reading)?.portrait ?? [];
  const seen = turned.map(([a, b]) => `${a}–${b}`).join(", ");
  return (
    <ValueRow label={capital(whenWords(when))} own={own} from={from} reset={reset}>
      <Select
        size="xs"
        aria-label={`Cut ${whenWords(when)}`}
        allowDeselect={false}
        value={shown === null ? USUAL : String(shown)}
        onChange={(v) =>
          v && (v === USUAL ? usual() : say({ show: "picture", original: Number(v) }))
        }
        data={[
          { value: USUAL, label: "as usual" },
          ...cuts.map((c) => ({
            value: String(c.original),
            label: names.get(c.original) ?? "a picture that is gone",
          })),
        ]}
      />
      {when.join() === "portrait" && (
        <span className="soft">
          {seen ? `typical screens stand upright at ${seen}` : "typical screens lie at every width"}
        </span>
      )}
    </ValueRow>
  );
}
