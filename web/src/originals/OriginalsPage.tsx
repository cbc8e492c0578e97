/** A wall of pictures: drop many at once, say what they show, see where they are used. */

import { ActionIcon, Button, Checkbox, Modal, Progress, Textarea } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { IconTrash } from "@tabler/icons-react";
import { useRef, useState } from "react";
import { useParams } from "react-router";
import { type Original, useDescribeOriginal, useOriginals, useRemoveOriginal } from "../api/queries";
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
  const [chosen, setChosen] = useState<number>();
  const shown = originals.data?.find((o) => o.id === chosen);
  return (
    <>
      <Bar title="Originals" right={<Button onClick={() => open.current?.()}>Bring pictures…</Button>}>
        {originals.data && <span className="soft">{plural(originals.data.length, "picture")}</span>}
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
        <div className={classes.wall}>
          {originals.data?.map((o) => (
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
              <span className={classes.line}>
                <span>{size(o.width_px, o.height_px)}</span>
                <AltState of={o} />
              </span>
              <span className={classes.line}>
                <span title={o.used_in?.join("; ")}>{o.used_in?.length ? o.used_in[0] : "not used"}</span>
              </span>
            </button>
          ))}
        </div>
      </Dropzone>
      {uploads.list.length > 0 && <Uploads uploads={uploads} />}
      <Modal opened={!!shown} onClose={() => setChosen(undefined)} title={shown?.name} size="xl">
        {shown && <One key={shown.id} siteId={siteId} original={shown} close={() => setChosen(undefined)} />}
      </Modal>
    </>
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
