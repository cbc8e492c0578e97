/**
 * The named frame that lies under the placement's own values: taken, left, or named after what
 * stands here.
 */
import { Button, Popover, Select, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useState } from "react";
import { useChangeFrame, useFrameUses } from "../../../api/queries";
import { plural } from "../../../ui/format";
import { useWork } from "../../context";
import field from "../Field.module.css";

const OWN = "own values";

export function NamedFrameField() {
  const { site, placementId, handle } = useWork();
  const change = useChangeFrame(site.id, placementId);
  const uses = useFrameUses(site.id);
  const { frame } = handle.draft.placement;
  const known = site.plan.frames.find((f) => f.id === frame);
  const others = (uses.data?.[frame ?? ""] ?? []).filter(
    (u) => !u.endsWith(`· ${handle.draft.placement.name}`),
  );
  const apply = async (asked: { name: string } | { frame: string | null }) => {
    if (!(await handle.save())) return;
    change.mutate(asked, { onSuccess: handle.takeTheirs });
  };
  return (
    <div className={field.field} data-own={frame || undefined}>
      <div className={field.label}>Frame</div>
      <div className={field.control}>
        <Select
          aria-label="Named frame of this placement"
          value={frame ?? OWN}
          data={[
            { value: OWN, label: "own values" },
            ...site.plan.frames.map((f) => ({ value: f.id, label: f.name })),
          ]}
          onChange={(id) => id && id !== (frame ?? OWN) && apply({ frame: id === OWN ? null : id })}
          allowDeselect={false}
          disabled={change.isPending}
          styles={{ input: { width: 150 } }}
        />
        {known ? (
          <span className="soft" title={others.join("\n") || undefined}>
            {others.length ? `also on ${plural(others.length, "placement")}` : "nowhere else"}
            {"; changed in Site"}
          </span>
        ) : (
          <NameIt name={(name) => apply({ name })} busy={change.isPending} />
        )}
        {change.error && (
          <div className={field.error} role="alert">
            {change.error.message}
          </div>
        )}
      </div>
      <div className={field.origin}>
        {known && (
          <button
            type="button"
            className="plain"
            onClick={() => apply({ frame: null })}
            title="Its values become the placement's own; nothing shows otherwise"
          >
            part from it
          </button>
        )}
      </div>
    </div>
  );
}

function NameIt({ name, busy }: { name: (name: string) => void; busy: boolean }) {
  const [opened, { toggle, close }] = useDisclosure();
  const [text, setText] = useState("");
  return (
    <Popover
      opened={opened}
      onChange={(o) => !o && close()}
      position="bottom-start"
      shadow="md"
      trapFocus
    >
      <Popover.Target>
        <button type="button" className="plain" onClick={toggle} aria-expanded={opened}>
          name it…
        </button>
      </Popover.Target>
      <Popover.Dropdown>
        <form
          style={{ display: "flex", gap: 8, alignItems: "end" }}
          onSubmit={(e) => {
            e.preventDefault();
            name(text);
            close();
          }}
        >
          <TextInput
            label="A name for this frame"
            description="Other placements of the site can take it."
            placeholder="column third"
            value={text}
            onChange={(e) => setText(e.currentTarget.value)}
            maxLength={40}
            required
          />
          <Button type="submit" loading={busy}>
            Name it
          </Button>
        </form>
      </Popover.Dropdown>
    </Popover>
  );
}
