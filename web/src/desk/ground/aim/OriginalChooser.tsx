import { Button, Popover, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useState } from "react";
import type { Look } from "../../../api/queries";
import { size } from "../../../ui/format";
import { useWork } from "../../context";
import classes from "./Aim.module.css";

interface Props {
  give: (id: number, look: Look) => void;
  bring: () => void;
  label: string;
  /** The one that is there; else what the chosen span shows. */
  chosen?: number | null;
}

/** The site's originals to choose from, for the chosen span. */
export function OriginalChooser({ give, bring, label, chosen }: Props) {
  const { originals, span } = useWork();
  const [open, { toggle, close }] = useDisclosure();
  const [search, setSearch] = useState("");
  const found = originals.filter((o) => o.name.toLowerCase().includes(search.toLowerCase()));
  return (
    <Popover opened={open} onChange={(o) => !o && close()} position="top-start" trapFocus shadow="md">
      <Popover.Target>
        <Button size="compact-xs" variant="default" onClick={toggle}>
          {label}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div style={{ display: "flex", gap: 8, marginBottom: 10 }}>
          <TextInput
            placeholder="Find by name"
            aria-label="Find an original by name"
            value={search}
            onChange={(e) => setSearch(e.currentTarget.value)}
            style={{ flex: 1 }}
          />
          <Button
            variant="default"
            onClick={() => {
              close();
              bring();
            }}
          >
            Bring a picture…
          </Button>
        </div>
        <div className={classes.chooser}>
          {found.map((o) => (
            <button
              key={o.id}
              type="button"
              className={classes.choice}
              aria-pressed={o.id === (chosen === undefined ? span.effective.original : chosen)}
              onClick={() => {
                give(o.id, { focal: o.focal as [number, number], areas: o.areas });
                close();
              }}
            >
              <img src={o.thumb} alt="" loading="lazy" />
              <span title={o.name}>{o.name}</span>
              <span className="soft">{size(o.width_px, o.height_px)}</span>
            </button>
          ))}
          {found.length === 0 && <span>{originals.length ? "No original of that name." : "No originals yet."}</span>}
        </div>
      </Popover.Dropdown>
    </Popover>
  );
}
