/** One value of the kind itself, or several that go together. */
import type { ReactNode } from "react";
import { useKindValues } from "./useKindValues";
import { ValueRow } from "./ValueRow";

export function KindValue({
  fields,
  label,
  children,
}: {
  fields: readonly string[];
  label: string;
  children: ReactNode;
}) {
  const { own, from, reset, problem } = useKindValues();
  return (
    <ValueRow
      label={label}
      spots={fields}
      own={fields.some(own)}
      from={fields.map(from).find(Boolean)}
      reset={() => reset(fields)}
      error={fields.map(problem).find(Boolean)}
    >
      {children}
    </ValueRow>
  );
}
