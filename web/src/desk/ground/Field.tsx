/** One value of a treatment. */
import type { ReactNode } from "react";
import type { Treatment } from "../../api/queries";
import { useWork } from "../context";
import { ValueRow } from "./ValueRow";

interface Props {
  field: keyof Treatment;
  label: string;
  children: ReactNode;
  error?: string;
}

export function Field({ field, label, children, error }: Props) {
  const { span, handle, ofAll } = useWork();
  const common = handle.draft.placement.common[span.letter];
  return (
    <ValueRow
      label={label}
      spots={[field]}
      own={ofAll ? common?.[field] != null : span.own.includes(field)}
      from={span.origin[field]}
      reset={() => handle.treat(span.letter, { [field]: undefined })}
      error={error}
    >
      {children}
    </ValueRow>
  );
}
