/** One value of the banner itself, or several that go together. */
import type { ReactNode } from "react";
import type { BannerValues } from "../../../api/queries";
import { ValueRow } from "../ValueRow";
import { useWords } from "./useWords";

interface Props {
  fields: readonly (keyof BannerValues)[];
  label: string;
  children: ReactNode;
}

export function LayoutField({ fields, label, children }: Props) {
  const { own, from, reset, problem } = useWords();
  return (
    <ValueRow
      label={label}
      own={fields.some(own)}
      from={fields.map(from).find(Boolean)}
      reset={() => reset(fields)}
      error={fields.map(problem).find(Boolean)}
    >
      {children}
    </ValueRow>
  );
}
