/** The site's originals, to add several as items at once; new files can be brought here too. */
import { Button, Popover, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useRef, useState } from "react";
import type { Original } from "../api/queries";
import { useUploads } from "../originals/useUploads";
import { percent, plural, size } from "../ui/format";
import { useWork } from "./context";
import aim from "./ground/aim/Aim.module.css";

export function ItemChooser({ add }: { add: (chosen: Original[]) => void }) {
  const { originals, site } = useWork();
  const [open, { toggle, close }] = useDisclosure();
  const [search, setSearch] = useState("");
  const [chosen, setChosen] = useState<number[]>([]);
  const input = useRef<HTMLInputElement>(null);
  const uploads = useUploads(site.id);
  const found = originals.filter((o) => o.name.toLowerCase().includes(search.toLowerCase()));
  const bring = async (files: File[]) => {
    const brought = await Promise.all(uploads.bring(files).map((u) => u.original));
    add(brought.flatMap((o) => o ?? []));
  };
  const going = uploads.list.filter((u) => u.state !== "here");
  return (
    <>
      <Popover opened={open} onChange={(o) => !o && close()} position="top-start" trapFocus shadow="md">
        <Popover.Target>
          <Button size="compact-xs" variant="default" onClick={toggle}>
            Add…
          </Button>
        </Popover.Target>
        <Popover.Dropdown>
          <div style={{ display: "flex", gap: 8, marginBottom: 10 }}>
            <TextInput
              placeholder="Find by name"
              aria-label="Find originals by name"
              value={search}
              onChange={(e) => setSearch(e.currentTarget.value)}
              style={{ flex: 1 }}
            />
            <Button variant="default" onClick={() => input.current?.click()}>
              Bring pictures…
            </Button>
          </div>
          <div className={aim.chooser}>
            {found.map((o) => (
              <button
                key={o.id}
                type="button"
                className={aim.choice}
                aria-pressed={chosen.includes(o.id)}
                onClick={() => setChosen(chosen.includes(o.id) ? chosen.filter((c) => c !== o.id) : [...chosen, o.id])}
              >
                <img src={o.thumb} alt="" loading="lazy" />
                <span title={o.name}>{o.name}</span>
                <span className="soft">{size(o.width_px, o.height_px)}</span>
              </button>
            ))}
            {found.length === 0 && <span>{originals.length ? "No original of that name." : "No originals yet."}</span>}
          </div>
          <Button
            mt={10}
            disabled={!chosen.length}
            onClick={() => {
              add(chosen.flatMap((id) => originals.find((o) => o.id === id) ?? []));
              setChosen([]);
              close();
            }}
          >
            {chosen.length ? `Add ${plural(chosen.length, "item")}` : "Add"}
          </Button>
        </Popover.Dropdown>
      </Popover>
      <input
        ref={input}
        type="file"
        multiple
        hidden
        accept="image/*"
        aria-label="Bring items"
        onChange={(e) => {
          void bring([...(e.currentTarget.files ?? [])]);
          close();
        }}
      />
      {going.map((u) => (
        <span key={u.id} role="status">
          {u.state === "going" ? `${u.name} ${percent(u.progress)}` : (u.error ?? `${u.name} waits`)}
          {u.state === "refused" && (
            <button type="button" className="plain" onClick={() => uploads.dismiss(u.id)}>
              dismiss
            </button>
          )}
        </span>
      ))}
    </>
  );
}
