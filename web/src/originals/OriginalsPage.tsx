/** A wall of pictures: drop many at once, say what they show, see where they are used. */

import { Button, Modal, Select, TextInput } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { useMemo, useRef, useState } from "react";
import { useParams } from "react-router";
import { type Original, useOriginals, useSite } from "../api/queries";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import { useKeys } from "../ui/useKeys";
import { OriginalSheet } from "./OriginalSheet";
import classes from "./Originals.module.css";
import { Selection } from "./Selection";
import { Uploads } from "./Uploads";
import { useUploads } from "./useUploads";
import { Wall } from "./Wall";

const NONE: Original[] = [];

export function OriginalsPage() {
  const siteId = Number(useParams().siteId);
  const originals = useOriginals(siteId);
  const uploads = useUploads(siteId);
  const open = useRef<() => void>(null);
  const site = useSite(siteId);
  const [chosen, setChosen] = useState<number>();
  const [filter, setFilter] = useState<Filter>("all");
  const [order, setOrder] = useState<Order>("newest");
  const [search, setSearch] = useState("");
  const find = useRef<HTMLInputElement>(null);
  useKeys([["/", () => find.current?.focus()]]);
  const [said, setSaid] = useState<string>();
  const close = () => {
    setChosen(undefined);
    setSaid(undefined);
  };
  const one = originals.data?.find((o) => o.id === chosen);
  const all = originals.data ?? NONE;
  const shown = useMemo(() => arranged(all, filter, order, search), [all, filter, order, search]);
  const tags = useMemo(() => [...new Set(all.flatMap((o) => o.tags))].sort(), [all]);
  const [selected, setSelected] = useState<ReadonlySet<number>>(new Set());
  const lastTick = useRef<number>(undefined);
  const tick = (id: number, through: boolean) => {
    const from = shown.findIndex((o) => o.id === lastTick.current);
    const to = shown.findIndex((o) => o.id === id);
    const ids =
      through && from >= 0
        ? shown.slice(Math.min(from, to), Math.max(from, to) + 1).map((o) => o.id)
        : [id];
    const next = new Set(selected);
    const on = !selected.has(id);
    for (const i of ids) on ? next.add(i) : next.delete(i);
    lastTick.current = id;
    setSelected(next);
  };
  return (
    <>
      <Bar
        title="Originals"
        right={<Button onClick={() => open.current?.()}>Bring pictures…</Button>}
      >
        {(Object.keys(FILTERS) as Filter[]).map((f) => {
          const n = all.filter(FILTERS[f][1]).length;
          return f !== "all" && n === 0 && f !== filter ? null : (
            <button
              key={f}
              type="button"
              className={classes.filter}
              aria-pressed={filter === f}
              onClick={() => setFilter(f)}
            >
              {FILTERS[f][0]} {originals.isAll && n}
            </button>
          );
        })}
        <TextInput
          ref={find}
          placeholder="Find by name or tag"
          aria-label="Find by name or tag"
          value={search}
          onChange={(e) => setSearch(e.currentTarget.value)}
          w={160}
        />
        <Select
          aria-label="Order"
          value={order}
          onChange={(v) => setOrder((v ?? "newest") as Order)}
          allowDeselect={false}
          w={130}
          data={[
            { value: "newest", label: "newest first" },
            { value: "widest", label: "widest first" },
            { value: "name", label: "by name" },
            { value: "heaviest", label: "heaviest first" },
          ]}
        />
      </Bar>
      <Dropzone
        onDrop={(files) => uploads.bring(files)}
        openRef={open}
        activateOnClick={false}
        activateOnKeyboard={false}
        unstyled
        className={classes.drop}
        inputProps={{ "aria-label": "Bring pictures" }}
      >
        {originals.isPending && <Rows n={3} height={180} />}
        {originals.error && <Failure error={originals.error} again={() => originals.refetch()} />}
        {originals.data?.length === 0 && (
          <Empty title="No picture yet.">
            <span>
              Drop JPEG, PNG, WebP, AVIF, TIFF, HEIC, GIF or SVG files anywhere here. They are kept
              as they are.
            </span>
            <Button onClick={() => open.current?.()}>Bring pictures…</Button>
          </Empty>
        )}
        {originals.isAll && all.length > 0 && shown.length === 0 && (
          <Empty title="No picture is like that." />
        )}
        {shown.length > 0 && (
          <Wall
            originals={shown}
            widest={site.data?.plan.widest ?? 2560}
            selected={selected}
            tick={tick}
            open={(id) => setChosen(id)}
          />
        )}
        {originals.data && !originals.isAll && <Rows n={1} height={180} />}
      </Dropzone>
      <Uploads {...uploads} summed />
      {selected.size > 0 && (
        <Selection
          siteId={siteId}
          selected={all.filter((o) => selected.has(o.id))}
          tags={tags}
          clear={() => setSelected(new Set())}
        />
      )}
      <Modal opened={!!one} onClose={close} title={one?.name} fullScreen>
        {one && (
          <OriginalSheet
            key={`${one.id} ${one.preview}`}
            siteId={siteId}
            original={one}
            tags={tags}
            close={close}
            said={said}
            say={setSaid}
          />
        )}
      </Modal>
    </>
  );
}

const FILTERS = {
  all: ["All", () => true],
  "no-alt": ["No alt text", (o: Original) => o.alt === null],
  small: ["Too small", (o: Original) => o.too_small],
  unused: ["Not used", (o: Original) => !o.used_in?.length],
} as const satisfies Record<string, readonly [string, (o: Original) => boolean]>;
type Filter = keyof typeof FILTERS;
type Order = "newest" | "widest" | "name" | "heaviest";

const ORDERS: Record<Order, (a: Original, b: Original) => number> = {
  newest: (a, b) => b.id - a.id,
  widest: (a, b) => b.width_px - a.width_px,
  name: (a, b) => a.name.localeCompare(b.name),
  heaviest: (a, b) => b.size_bytes - a.size_bytes,
};

const arranged = (all: Original[], filter: Filter, order: Order, search: string) =>
  all
    .filter(FILTERS[filter][1])
    .filter((o) =>
      [o.name, ...o.tags].some((t) => t.toLowerCase().includes(search.trim().toLowerCase())),
    )
    .sort(ORDERS[order]);
