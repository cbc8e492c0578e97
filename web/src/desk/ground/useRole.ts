/** The part of a role, where there is one, as the chosen span has it. */
import type { Part } from "../../api/queries";
import { useWork } from "../context";
import { withRole, withTreatment } from "../draft";

export type Role = NonNullable<Part["role"]>;

export function useRole(role: Role) {
  const { handle, reading, span, originals } = useWork();
  const index = handle.draft.placement.parts.findIndex((p) => p.role === role);
  const here = reading.parts[index]?.spans.find((s) => s.letter === span.letter);
  return {
    index,
    here,
    original: originals.find((o) => o.id === here?.effective.original),
    findings: reading.findings.filter((f) => f.part === index && f.step === "words"),
    remove: () => handle.change((d) => withRole(d, role, undefined)),
    show: (show: "picture" | "nothing" | undefined) =>
      handle.change((d) => withTreatment(d, index, span.letter, { show })),
  };
}
