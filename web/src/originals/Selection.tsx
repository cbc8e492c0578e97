/** What can be done with several originals at once: alt text, tags, removal. */
import { Button, Checkbox, Popover, TagsInput, Textarea } from "@mantine/core";
import { useState } from "react";
import { type Original, useDescribeOriginals, useRemoveOriginals } from "../api/queries";
import { plural } from "../ui/format";
import classes from "./Originals.module.css";

interface Props {
  siteId: number;
  selected: Original[];
  tags: string[];
  clear: () => void;
}

export function Selection({ siteId, selected, tags, clear }: Props) {
  const describe = useDescribeOriginals(siteId);
  const remove = useRemoveOriginals(siteId);
  const [alt, setAlt] = useState("");
  const [decorative, setDecorative] = useState(false);
  const shared = [...new Set(selected.flatMap((o) => o.tags))];
  const [added, setAdded] = useState<string[]>([]);
  const ids = selected.map((o) => o.id);
  const used = selected.filter((o) => o.used_in?.length);
  const left = remove.data?.filter((r) => !r.removed) ?? [];
  return (
    <section className={classes.selection} aria-label="Selected originals">
      <strong>{plural(selected.length, "original")} selected</strong>
      <Popover position="top" shadow="md" trapFocus width={320}>
        <Popover.Target>
          <Button variant="default">Alt text…</Button>
        </Popover.Target>
        <Popover.Dropdown>
          <div className={classes.facts}>
            <Textarea
              label={`Alt text for ${plural(selected.length, "original")}`}
              autosize
              minRows={2}
              maxLength={1000}
              disabled={decorative}
              value={alt}
              onChange={(e) => {
                describe.reset();
                setAlt(e.currentTarget.value);
              }}
            />
            <Checkbox
              label="Decorative on purpose"
              checked={decorative}
              onChange={(e) => {
                describe.reset();
                setDecorative(e.currentTarget.checked);
              }}
            />
            <Button
              disabled={!decorative && !alt.trim()}
              loading={describe.isPending}
              onClick={() => describe.mutate({ ids, alt: decorative ? "" : alt.trim() })}
            >
              {describe.isSuccess ? "Kept" : "Keep"}
            </Button>
          </div>
        </Popover.Dropdown>
      </Popover>
      <Popover position="top" shadow="md" trapFocus width={320}>
        <Popover.Target>
          <Button variant="default">Tags…</Button>
        </Popover.Target>
        <Popover.Dropdown>
          <div className={classes.facts}>
            <TagsInput
              label="Add tags"
              data={tags}
              value={added}
              onChange={setAdded}
              maxTags={20}
              comboboxProps={{ withinPortal: false }}
            />
            <Button
              disabled={!added.length}
              loading={describe.isPending}
              onClick={() =>
                describe.mutate({ ids, add_tags: added }, { onSuccess: () => setAdded([]) })
              }
            >
              Add
            </Button>
            {shared.length > 0 && (
              <span>
                On them now:{" "}
                {shared.map((t) => (
                  <button
                    key={t}
                    type="button"
                    className="plain"
                    style={{ marginRight: 8 }}
                    aria-label={`Take tag ${t} off`}
                    onClick={() => describe.mutate({ ids, drop_tags: [t] })}
                  >
                    {t} ×
                  </button>
                ))}
              </span>
            )}
          </div>
        </Popover.Dropdown>
      </Popover>
      <Popover position="top" shadow="md" trapFocus width={340}>
        <Popover.Target>
          <Button variant="default" color="red">
            Remove…
          </Button>
        </Popover.Target>
        <Popover.Dropdown>
          <div className={classes.facts}>
            {used.length > 0 && (
              <span>
                {plural(used.length, "is", "are")} in use and stay{used.length === 1 ? "s" : ""}:{" "}
                {used.map((o) => `${o.name} (${o.used_in?.join("; ")})`).join(", ")}.
              </span>
            )}
            <Button
              color="red"
              disabled={used.length === selected.length}
              loading={remove.isPending}
              onClick={() =>
                remove.mutate(ids, { onSuccess: (out) => out.every((r) => r.removed) && clear() })
              }
            >
              Remove {plural(selected.length - used.length, "original")}
            </Button>
            {left.length > 0 && (
              <span role="status">
                Kept: {left.map((r) => `${r.name} is used in ${r.used_in?.join("; ")}`).join(", ")}.
              </span>
            )}
          </div>
        </Popover.Dropdown>
      </Popover>
      <button type="button" className="plain" onClick={clear}>
        Clear
      </button>
      {(describe.error ?? remove.error) && (
        <span role="alert" className={classes.missing}>
          {(describe.error ?? remove.error)?.message}
        </span>
      )}
    </section>
  );
}
