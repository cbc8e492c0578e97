/**
 * The areas of an original in their order of importance: named, sized, ordered, duplicated,
 * removed.
 */
import { ActionIcon, Button, Checkbox, TextInput } from "@mantine/core";
import { IconCopy, IconTrash } from "@tabler/icons-react";
import { useEffect, useState } from "react";
import { NumberField } from "../ui/NumberField";
import { Sortable } from "../ui/Sortable";
import { reordered } from "../ui/Sorting";
import { type Area, added, changed, duplicated, removed } from "./areas";
import classes from "./Picture.module.css";

interface Props {
  areas: Area[];
  set: (areas: Area[], group?: string) => void;
  /** Ask what may stand out in the picture. */
  suggest?: () => void;
}

const MIDDLE = { x: 0.35, y: 0.35, w: 0.3, h: 0.3 };

export function AreaList({ areas, set, suggest }: Props) {
  return (
    <div className={classes.areas}>
      <p>
        Keep areas must stay in view, the first before the later ones. Words may lie on quiet areas.
      </p>
      {areas.length === 0 && (
        <p className="soft">None yet: draw one on the picture, or add one here.</p>
      )}
      <Sortable
        items={areas}
        name={(a) => a.name}
        move={(from, to) => set(reordered(areas, from, to))}
      >
        {(a, i) => (
          <>
            <span className="soft">{a.kind === "quiet" ? "quiet" : "keep"}</span>
            <Name
              value={a.name}
              taken={areas.filter((_, n) => n !== i).map((x) => x.name)}
              set={(name) => set(changed(areas, i, { name }), `name ${i}`)}
            />
            {a.kind !== "quiet" && (
              <NumberField
                label={`Least shown width of ${a.name}`}
                before="at least"
                unit="px"
                optional
                value={a.least_px ?? undefined}
                set={(v) =>
                  set(changed(areas, i, { least_px: v && v > 0 ? v : null }), `least ${i}`)
                }
              />
            )}
            <Checkbox
              size="xs"
              label="lettering"
              aria-label={`${a.name} is lettering`}
              checked={a.lettering ?? false}
              onChange={(e) => set(changed(areas, i, { lettering: e.currentTarget.checked }))}
            />
            <span className={classes.tools}>
              <ActionIcon
                variant="subtle"
                size={24}
                aria-label={`Duplicate ${a.name}`}
                onClick={() => set(duplicated(areas, i))}
              >
                <IconCopy size={14} />
              </ActionIcon>
              <ActionIcon
                variant="subtle"
                size={24}
                color="red"
                aria-label={`Remove ${a.name}`}
                onClick={() => set(removed(areas, i))}
              >
                <IconTrash size={14} />
              </ActionIcon>
            </span>
          </>
        )}
      </Sortable>
      <div className={classes.row}>
        <Button variant="default" onClick={() => set(added(areas, "keep", MIDDLE))}>
          Add a keep area
        </Button>
        <Button variant="default" onClick={() => set(added(areas, "quiet", MIDDLE))}>
          Add a quiet area
        </Button>
        {suggest && (
          <Button variant="default" onClick={suggest}>
            Suggest…
          </Button>
        )}
      </div>
    </div>
  );
}

/** A name is taken with Enter or when it is left, unless it is empty or another area has it. */
function Name({
  value,
  taken,
  set,
}: {
  value: string;
  taken: string[];
  set: (name: string) => void;
}) {
  const [text, setText] = useState<string>();
  // it stands until it is told anew
  // biome-ignore lint/correctness/useExhaustiveDependencies: with each new name
  useEffect(() => setText(undefined), [value]);
  const shown = text ?? value;
  const error = !shown.trim() ? "a name" : taken.includes(shown.trim()) ? "taken" : undefined;
  const take = () => {
    if (!error && shown.trim() !== value) set(shown.trim());
  };
  return (
    <TextInput
      aria-label={`Name of area ${value}`}
      value={shown}
      maxLength={80}
      error={error}
      onChange={(e) => setText(e.currentTarget.value)}
      onKeyDown={(e) => {
        if (e.key === "Escape") setText(undefined);
        if (e.key === "Enter") take();
      }}
      onBlur={() => (error ? setText(undefined) : take())}
      styles={{ input: { width: 130 }, error: { fontSize: 11 } }}
    />
  );
}
