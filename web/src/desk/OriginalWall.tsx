/** The site's originals to choose from, behind a button; new files can be brought here too. */
import { Button, Popover, TextInput } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { type ReactNode, useState } from "react";
import type { Original } from "../api/queries";
import { size } from "../ui/format";
import { useWork } from "./context";
import classes from "./ground/aim/Aim.module.css";

interface Props {
  label: string;
  /** Whether several can be chosen. */
  several?: boolean;
  isChosen: (id: number) => boolean;
  choose: (original: Original, close: () => void) => void;
  bring?: (close: () => void) => void;
  /** What stands under the pictures. */
  foot?: (close: () => void) => ReactNode;
}

export function OriginalWall({ label, several, isChosen, choose, bring, foot }: Props) {
  const { originals, originalsAreAll } = useWork();
  const [open, { toggle, close }] = useDisclosure();
  const [search, setSearch] = useState("");
  const found = originals.filter((o) => o.name.toLowerCase().includes(search.toLowerCase()));
  return (
    <Popover
      opened={open}
      onChange={(o) => !o && close()}
      position="top-start"
      trapFocus
      shadow="md"
    >
      <Popover.Target>
        <Button size="compact-xs" variant="default" onClick={toggle}>
          {label}
        </Button>
      </Popover.Target>
      <Popover.Dropdown>
        <div style={{ display: "flex", gap: 8, marginBottom: 10 }}>
          <TextInput
            placeholder="Find by name"
            aria-label={several ? "Find originals by name" : "Find an original by name"}
            value={search}
            onChange={(e) => setSearch(e.currentTarget.value)}
            style={{ flex: 1 }}
          />
          {bring && (
            <Button variant="default" onClick={() => bring(close)}>
              {several ? "Bring pictures…" : "Bring a picture…"}
            </Button>
          )}
        </div>
        <div className={classes.chooser}>
          {found.map((o) => (
            <button
              key={o.id}
              type="button"
              className={classes.choice}
              aria-pressed={isChosen(o.id)}
              onClick={() => choose(o, close)}
            >
              <img src={o.thumb} alt="" loading="lazy" />
              <span title={o.name}>{o.name}</span>
              <span className="soft">{size(o.width_px, o.height_px)}</span>
            </button>
          ))}
          {!originalsAreAll && <span className="soft">More are on their way…</span>}
          {originalsAreAll && found.length === 0 && (
            <span>{originals.length ? "No original of that name." : "No originals yet."}</span>
          )}
        </div>
        {foot?.(close)}
      </Popover.Dropdown>
    </Popover>
  );
}
