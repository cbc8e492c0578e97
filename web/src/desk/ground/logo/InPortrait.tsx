/** Another cut for viewports that are at least as high as they are wide, in the same box. */
import { Select } from "@mantine/core";
import type { LogoValues } from "../../../api/queries";
import { useWork } from "../../context";
import { NEW_PART, withRole, withTreatment } from "../../draft";
import { useRole } from "../useRole";
import { ValueRow } from "../ValueRow";
import { logoOf } from "./own";

const SAME = "same";

export function InPortrait({ cuts }: { cuts: LogoValues["cuts"] }) {
  const { handle, reading, span, originals } = useWork();
  const { index, here } = useRole("portrait");
  const widest = reading.spans.at(-1)?.letter ?? span.letter;
  const shown = here?.effective.show === "picture" ? here.effective.original : null;
  const names = new Map(originals.map((o) => [o.id, o.name]));
  const choose = (to: string) =>
    handle.change((d) => {
      const is = to === SAME ? { show: "nothing" as const } : { show: "picture" as const, original: Number(to) };
      // from the widest span on nothing else than in landscape, until a span says so
      const without = { ...NEW_PART, treatments: { [widest]: { show: "nothing" as const } } };
      const there = index < 0 ? withRole(d, "portrait", without) : d;
      const at = there.placement.parts.findIndex((p) => p.role === "portrait");
      const next = withTreatment(there, at, span.letter, is);
      const all = Object.values(next.placement.parts[at]?.treatments ?? {});
      return all.some((t) => t.show === "picture") ? next : withRole(next, "portrait", undefined);
    });
  const reset = () =>
    handle.change((d) => withTreatment(d, index, span.letter, { show: undefined, original: undefined }));
  const turned = logoOf(reading)?.portrait ?? [];
  const seen = turned.map(([a, b]) => `${a}–${b}`).join(", ");
  return (
    <ValueRow
      label="In portrait"
      own={!!here && span.letter !== widest && here.own.some((f) => f === "show" || f === "original")}
      from={here?.origin.show}
      reset={reset}
    >
      <Select
        size="xs"
        aria-label="Cut in portrait orientation"
        allowDeselect={false}
        value={shown === null ? SAME : String(shown)}
        onChange={(v) => v && choose(v)}
        data={[
          { value: SAME, label: "the same cut" },
          ...cuts.map((c) => ({ value: String(c.original), label: names.get(c.original) ?? "a picture that is gone" })),
        ]}
      />
      <span className="soft">
        {seen ? `typical screens stand upright at ${seen}` : "typical screens lie at every width"}
      </span>
    </ValueRow>
  );
}
