/** A wall of pictures: drop many at once, say what they show, see where they are used. */

import { ActionIcon, Button, Checkbox, Modal, Progress, Select, Textarea, TextInput } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { IconTrash } from "@tabler/icons-react";
import { useRef, useState } from "react";
import { useParams } from "react-router";
import { type Original, useDescribeOriginal, useOriginals, useRemoveOriginal, useSite } from "../api/queries";
import { bytes, plural, size } from "../ui/format";
import { Bar } from "../ui/Shell";
import { Empty, Failure, Rows } from "../ui/states";
import classes from "./Originals.module.css";
import { useUploads } from "./useUploads";

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
  const one = originals.data?.find((o) => o.id === chosen);
  const all = originals.data ?? [];
  const shown = arranged(all, filter, order, search);
  return (
    <>
      <Bar title="Originals" right={<Button onClick={() => open.current?.()}>Bring pictures…</Button>}>
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
              {FILTERS[f][0]} {n}
            </button>
          );
        })}
        <TextInput
          placeholder="Find by name"
          aria-label="Find by name"
          value={search}
          onChange={(e) => setSearch(e.currentTarget.value)}
          w={150}
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
        {originals.isError && <Failure error={originals.error} again={() => originals.refetch()} />}
        {originals.data?.length === 0 && (
          <Empty title="No picture yet.">
            <span>Drop JPEG, PNG, WebP or AVIF files anywhere here. They are kept as they are.</span>
            <Button onClick={() => open.current?.()}>Bring pictures…</Button>
          </Empty>
        )}
        {all.length > 0 && shown.length === 0 && <Empty title="No picture is like that." />}
        <div className={classes.wall}>
          {shown.map((o) => (
            <button
              key={o.id}
              type="button"
              className={classes.card}
              style={{ flexGrow: o.width_px / o.height_px, flexBasis: (170 * o.width_px) / o.height_px }}
              onClick={() => setChosen(o.id)}
            >
              <span className={classes.picture} style={{ aspectRatio: `${o.width_px} / ${o.height_px}` }}>
                <img src={o.thumb} alt="" loading="lazy" />
              </span>
              <span className={classes.line}>
                <strong title={o.name}>{o.name}</strong>
                <span>{bytes(o.size_bytes)}</span>
              </span>
              <Enough of={o} widest={site.data?.plan.widest ?? 2560} />
              <span className={classes.line}>
                <span style={{ flexShrink: 0 }}>{size(o.width_px, o.height_px)}</span>
                <span className={classes.shrinks}>sharp to {o.sharp_2x} at 2x</span>
              </span>
              <span className={classes.line}>
                <span title={o.used_in?.join("; ")}>{o.used_in?.length ? o.used_in[0] : "not used"}</span>
                <AltState of={o} />
              </span>
            </button>
          ))}
        </div>
      </Dropzone>
      {uploads.list.length > 0 && <Uploads uploads={uploads} />}
      <Modal opened={!!one} onClose={() => setChosen(undefined)} title={one?.name} size="xl">
        {one && <One key={one.id} siteId={siteId} original={one} close={() => setChosen(undefined)} />}
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
    .filter((o) => o.name.toLowerCase().includes(search.trim().toLowerCase()))
    .sort(ORDERS[order]);

/** A horizon in small: dark up to the widest frame that it fills sharply at 2x, light at 1x. */
function Enough({ of, widest }: { of: Original; widest: number }) {
  const share = (width: number) => `${Math.min(1, width / widest) * 100}%`;
  return (
    <span
      className={classes.enough}
      role="img"
      aria-label={`Large enough for frames up to ${of.sharp_2x} px at 2x, ${of.sharp_1x} px at 1x`}
    >
      <i style={{ width: share(of.sharp_1x) }} />
      <b style={{ width: share(of.sharp_2x) }} />
    </span>
  );
}

function AltState({ of }: { of: Original }) {
  if (of.alt === null || of.alt === undefined) return <b className={classes.missing}>no alt text</b>;
  return <span>{of.alt === "" ? "decorative" : "alt ✓"}</span>;
}

function Uploads({ uploads }: { uploads: ReturnType<typeof useUploads> }) {
  const here = uploads.list.filter((u) => u.state === "here").length;
  const refused = uploads.list.filter((u) => u.state === "refused").length;
  const busy = uploads.list.length - here - refused;
  return (
    <aside className={classes.uploads} aria-label="Uploads" aria-live="polite">
      <header>
        <strong>{busy ? `Bringing ${plural(uploads.list.length, "picture")}` : "Done"}</strong>
        <span className="soft">
          {here} here{refused ? `, ${refused} refused` : ""}
        </span>
        {!busy && (
          <button type="button" className="plain" onClick={uploads.clear}>
            close
          </button>
        )}
      </header>
      <ul>
        {uploads.list
          .filter((u) => u.state !== "here" || u.original?.is_new === false || u.original?.notes.length)
          .map((u) => (
            <li key={u.id}>
              <span>{u.name}</span>
              {u.state === "refused" ? (
                <b className={classes.missing}>{u.error}</b>
              ) : u.state === "here" ? (
                <span className="soft">
                  {u.original?.is_new === false ? "was here already" : u.original?.notes.join(" ")}
                </span>
              ) : (
                <Progress value={u.progress * 100} aria-label={`${u.name} ${Math.round(u.progress * 100)} %`} />
              )}
            </li>
          ))}
      </ul>
    </aside>
  );
}

function One({ siteId, original, close }: { siteId: number; original: Original; close: () => void }) {
  const describe = useDescribeOriginal(siteId);
  const remove = useRemoveOriginal(siteId);
  const [alt, setAlt] = useState(original.alt ?? "");
  const decorative = original.alt === "";
  return (
    <div className={classes.one}>
      <img src={original.preview} alt={original.alt || original.name} />
      <div className={classes.facts}>
        <dl>
          <dt>Size</dt>
          <dd>
            {size(original.width_px, original.height_px)}, {bytes(original.size_bytes)}
          </dd>
          <dt>Kind</dt>
          <dd>
            {original.format.toUpperCase()}
            {original.alpha ? ", with transparency" : ""}
          </dd>
          <dt>Profile</dt>
          <dd>{original.profile || "none, taken for sRGB"}</dd>
          <dt>Used in</dt>
          <dd>{original.used_in?.length ? original.used_in.join("; ") : "nothing yet"}</dd>
        </dl>
        {original.notes.map((n) => (
          <p key={n}>{n}</p>
        ))}
        <Textarea
          label="Alt text"
          description="What it shows, for people who do not see it."
          autosize
          minRows={2}
          value={decorative ? "" : alt}
          disabled={decorative}
          onChange={(e) => setAlt(e.currentTarget.value)}
          onBlur={() =>
            alt.trim() !== (original.alt ?? "") && describe.mutate({ id: original.id, alt: alt.trim() || null })
          }
          error={describe.error?.message}
        />
        <Checkbox
          label="Decorative on purpose"
          checked={decorative}
          onChange={(e) => describe.mutate({ id: original.id, alt: e.currentTarget.checked ? "" : alt.trim() || null })}
        />
        <div>
          <ActionIcon
            variant="default"
            aria-label={`Remove ${original.name}`}
            onClick={() => remove.mutate(original.id, { onSuccess: close })}
          >
            <IconTrash size={15} />
          </ActionIcon>
        </div>
        {remove.error && (
          <p role="alert" className={classes.missing}>
            {remove.error.message}
          </p>
        )}
      </div>
    </div>
  );
}
