/** Which keep areas matter in a span, and in what order: a narrow span may let one go. */
import { Button, Checkbox, Popover } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import type { Reading, Treatment } from "../../../api/queries";
import type { Area } from "../../../picture/areas";
import { enumerated } from "../../../ui/format";
import { Sortable } from "../../../ui/Sortable";
import { reordered } from "../../../ui/Sorting";
import { useWork } from "../../context";
import { Told } from "../../Told";
import { Field } from "../Field";
import ground from "../Ground.module.css";

interface Props {
  areas: readonly Area[];
  set: (values: Treatment, group?: string) => void;
}

export function KeepsField({ areas, set }: Props) {
  const { span, reading } = useWork();
  const fit = reading.detail?.letter === span.letter ? reading.detail.together : undefined;
  const [opened, { toggle, close }] = useDisclosure();
  const all = areas.filter((a) => a.kind !== "quiet").map((a) => a.name);
  const matter = span.keeps.filter((n) => all.includes(n));
  const rows = [...matter, ...all.filter((n) => !matter.includes(n))];
  const gone = all.filter((n) => !matter.includes(n));
  if (!all.length) return null;
  return (
    <Field field="keeps" label="Areas">
      <Popover
        opened={opened}
        onChange={(o) => !o && close()}
        position="top-start"
        shadow="md"
        trapFocus
        width={280}
      >
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
        {fit && (
          <Told>
            <span>{`. ${saidOf(fit)}`}</span>
          </Told>
        )}
      </span>
    </Field>
  );
}

type Together = NonNullable<NonNullable<Reading["detail"]>["together"]>;

/** How many of them fit here, and how large the picture can be drawn with all of them. */
function saidOf({ most, of, enlarged }: Together): string {
  if (most.length < of)
    return most.length
      ? `At most ${most.length} of ${of} fit here: ${enumerated(most)}`
      : "None of them fits here";
  const times = enlarged && enlarged > 1 ? `, enlarged up to ${enlarged} times` : "";
  return `${of === 1 ? "It fits" : `All ${of} fit`}${times}`;
}
