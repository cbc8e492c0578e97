/**
 * One value of the kind itself: a number, a choice or a switch. What it is called, its unit and its
 * bounds are the core's.
 */
import { SegmentedControl, Select, Switch } from "@mantine/core";
import { capital } from "../../ui/format";
import { NumberField } from "../../ui/NumberField";
import { useWork } from "../context";
import { useKindValues } from "./useKindValues";

interface Row {
  field: string;
  /**
   * How it is called for those who do not see what stands beside it; what the core calls it where
   * nothing is said.
   */
  label?: string;
}

function useValue({ field, label }: Row) {
  const { values, set } = useKindValues<Record<string, unknown>>();
  const facts = useWork().reading.values[field];
  const name = facts?.name ?? field;
  return {
    facts,
    value: values?.[field],
    label: label ?? capital(name),
    set: (value: unknown, group?: string) => set({ [field]: value }, group),
  };
}

/** `before` and `unit` stand beside the number. */
export function KindNumber({ before, unit, ...row }: Row & { before?: string; unit?: string }) {
  const { facts, value, label, set } = useValue(row);
  if (!facts || typeof value !== "number") return null;
  return (
    <NumberField
      label={label}
      before={before}
      unit={unit ?? facts.unit}
      least={facts.least ?? undefined}
      most={facts.most ?? undefined}
      value={value}
      set={(v) => set(facts.whole ? Math.round(v) : v, row.field)}
    />
  );
}

/** More than so many choices are a list, unless it is asked for otherwise. */
const MOST_SIDE_BY_SIDE = 4;

/**
 * `words`: how what can be chosen is called; `listed`: as a list or side by side, however many there
 * are.
 */
export function KindChoice({
  words,
  listed,
  w,
  ...row
}: Row & { words?: Record<string, string>; listed?: boolean; w?: number }) {
  const { facts, value, label, set } = useValue(row);
  if (!facts || typeof value !== "string") return null;
  const data = facts.choices.map((choice) => ({ value: choice, label: words?.[choice] ?? choice }));
  return (listed ?? data.length > MOST_SIDE_BY_SIDE) ? (
    <Select
      size="xs"
      w={w ?? 210}
      aria-label={label}
      data={data}
      value={value}
      allowDeselect={false}
      onChange={(v) => v && set(v)}
    />
  ) : (
    <SegmentedControl size="xs" aria-label={label} value={value} onChange={set} data={data} />
  );
}

/** `says` stands beside the switch. */
export function KindSwitch({ says, ...row }: Row & { says: string }) {
  const { value, set } = useValue(row);
  if (typeof value !== "boolean") return null;
  return (
    <Switch size="xs" label={says} checked={value} onChange={(e) => set(e.currentTarget.checked)} />
  );
}
