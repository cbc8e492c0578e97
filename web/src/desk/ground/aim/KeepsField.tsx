/** Which keep areas matter in a span, and in what order: a narrow span may let one go. */
import { Button, Checkbox, Popover } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import type { Treatment } from "../../../api/queries";
import type { Area } from "../../../picture/areas";
import { Sortable } from "../../../ui/Sortable";
import { reordered } from "../../../ui/Sorting";
import { useWork } from "../../context";
import { Field } from "../Field";
import ground from "../Ground.module.css";

interface Props {
  areas: readonly Area[];
  set: (values: Treatment, group?: string) => void;
}

export function KeepsField({ areas, set }: Props) {
  const { span } = useWork();
  const [opened, { toggle, close }] = useDisclosure();
  const all = areas.filter((a) => a.kind !== "quiet").map((a) => a.name);
  const matter = span.keeps.filter((n) => all.includes(n));
  const rows = [...matter, ...all.filter((n) => !matter.includes(n))];
  const gone = all.filter((n) => !matter.includes(n));
  if (!all.length) return null;
  return (
    <Field field="keeps" label="Areas">
      <Popover opened={opened} onChange={(o) => !o && close()} position="top-start" shadow="md" trapFocus width={280}>
        <Popover.Target>
          <Button size="compact-xs" variant="default" onClick={toggle} aria-expanded={opened}>
            {gone.length ? `${matter.length} of ${all.length}…` : `All ${all.length}…`}
          </Button>
        </Popover.Target>
        <Popover.Dropdown>
          <div className={ground.stack}>
            <span>What has to stay in view in span {span.letter}, the most important first.</span>
            <Sortable
              items={rows}
              name={(n) => n}
              move={(from, to) => {
                const next = reordered(rows, from, to);
                set({ keeps: next.filter((n) => matter.includes(n)) });
              }}
            >
              {(name) => (
                <Checkbox
                  size="xs"
                  label={name}
                  checked={matter.includes(name)}
                  onChange={(e) =>
                    set({
                      keeps: e.currentTarget.checked
                        ? rows.filter((n) => n === name || matter.includes(n))
                        : matter.filter((n) => n !== name),
                    })
                  }
                />
              )}
            </Sortable>
          </div>
        </Popover.Dropdown>
      </Popover>
      <span className={ground.against} title={matter.join(", ")}>
        {gone.length ? `lets go ${gone.join(", ")}` : matter.join(", ")}
      </span>
    </Field>
  );
}
