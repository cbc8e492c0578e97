/** Aim: where the picture sits in its frame, per span; and another original where the first cannot serve. */

import { Button, Modal, Popover, SegmentedControl, TextInput } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { useDisclosure } from "@mantine/hooks";
import { useRef, useState } from "react";
import { type Look, type Original, type Treatment, useDescribeOriginal } from "../../../api/queries";
import { useUploads } from "../../../originals/useUploads";
import { percent, plural, range, size } from "../../../ui/format";
import { Letter } from "../../../ui/Letter";
import { runAt, spanAt, valueAt } from "../../scale";
import type { DeskState } from "../../types";
import { withTreatment } from "../../useDraft";
import { Field } from "../Field";
import { Findings } from "../Findings";
import { NumberField } from "../frame/NumberField";
import ground from "../Ground.module.css";
import { AdviceCard } from "./AdviceCard";
import classes from "./Aim.module.css";
import { AreaList } from "./AreaList";
import type { Area } from "./areas";
import { PictureMap, windowAt } from "./Map";
import { OriginalChooser } from "./OriginalChooser";

export function AimStep({ state }: { state: DeskState }) {
  const { span, reading, handle, originals, site, cursor } = state;
  const original = originals.find((o) => o.id === span.effective.original);
  const openFiles = useRef<() => void>(null);
  const giveTo = (letter: string, id: number, look: Look) =>
    handle.change((d) =>
      withTreatment({ ...d, looks: { ...d.looks, [id]: d.looks[id] ?? look } }, letter, { original: id }),
    );
  const give = (id: number, look: Look) => giveTo(span.letter, id, look);
  const uploads = useUploads(site.id);
  // a picture on its way belongs to the span it was dropped on, even if another is chosen meanwhile
  const bring = (files: File[]) =>
    uploads.bring(files.slice(0, 1), (o) =>
      giveTo(span.letter, o.id, { focal: o.focal as [number, number], areas: o.areas }),
    );
  const look =
    original &&
    (handle.draft.looks[original.id] ?? { focal: original.focal as [number, number], areas: original.areas });
  const aim = span.effective.aim ?? { kind: "following" as const };
  const set = (values: Partial<Treatment>, group?: string) => handle.treat(span.letter, values, group);
  const setAreas = (areas: Area[], group?: string) =>
    original && look && handle.look(original.id, { ...look, areas }, group && `${group} ${original.id}`);
  const keepCount = look?.areas?.filter((a) => a.kind !== "quiet").length ?? 0;
  const [drawing, setDrawing] = useState<"keep" | "quiet">();
  const [large, { open: openLarge, close: closeLarge }] = useDisclosure();
  const going = uploads.list.filter((u) => u.state !== "here");
  return (
    <>
      <div className={classes.map}>
        <Dropzone
          onDrop={bring}
          openRef={openFiles}
          activateOnClick={false}
          activateOnKeyboard={false}
          multiple={false}
          unstyled
          className={classes.drop}
          inputProps={{ "aria-label": `Bring an original for span ${span.letter}` }}
        >
          {original && look ? (
            <PictureMap
              setAreas={setAreas}
              drawing={drawing}
              drawn={() => setDrawing(undefined)}
              original={original}
              look={look}
              spans={reading.spans.filter((s) => s.effective.original === original.id)}
              chosen={span}
              cursor={cursor}
              moveFocal={(focal, group) => handle.look(original.id, { ...look, focal }, `${group} ${original.id}`)}
              settle={handle.settle}
            />
          ) : (
            <div className={classes.nothing}>
              <strong>No picture in span {span.letter} yet</strong>
              <span>Drop a JPEG, PNG, WebP or AVIF here, or</span>
              <div className={classes.row}>
                <Button onClick={() => openFiles.current?.()}>Bring a picture…</Button>
                <OriginalChooser
                  state={state}
                  give={give}
                  bring={() => openFiles.current?.()}
                  label="Choose an original…"
                />
              </div>
            </div>
          )}
        </Dropzone>
        {going.map((u) => (
          <div key={u.id} className={classes.upload} data-state={u.state} role="status">
            {u.state === "going" ? `${u.name} ${percent(u.progress)}` : u.error}
            {u.state === "refused" && (
              <button type="button" className="plain" onClick={() => uploads.dismiss(u.id)}>
                dismiss
              </button>
            )}
          </div>
        ))}
        {original && look && (
          <div className={classes.caption}>
            <b>{size(original.width_px, original.height_px)}</b>
            <Popover position="top-start" trapFocus shadow="md" width={480}>
              <Popover.Target>
                <button type="button" className="plain">
                  {plural(keepCount, "keep area")}
                </button>
              </Popover.Target>
              <Popover.Dropdown>
                <AreaList areas={look.areas ?? []} set={setAreas} />
              </Popover.Dropdown>
            </Popover>
            <button
              type="button"
              className="plain"
              aria-pressed={drawing === "keep"}
              onClick={() => setDrawing(drawing === "keep" ? undefined : "keep")}
            >
              {drawing === "keep" ? "drag on the picture…" : "draw one"}
            </button>
            <button type="button" className="plain" onClick={openLarge}>
              large
            </button>
            <span>
              focal {percent(look.focal[0])}, {percent(look.focal[1])}
            </span>
            <span className={classes.last}>
              {span.safe
                ? `safe ${Math.round((span.safe.x1 - span.safe.x0) * 100)} × ${percent(span.safe.y1 - span.safe.y0)}`
                : `no part shows at every width of ${span.letter}`}
            </span>
          </div>
        )}
      </div>
      {original && look && (
        <Modal opened={large} onClose={closeLarge} fullScreen title={`${original.name}, areas and focal point`}>
          <LargeMap state={state} original={original} look={look} setAreas={setAreas} />
        </Modal>
      )}
      <div className={ground.column} style={{ flex: "1 1 400px" }}>
        <div className={ground.head}>
          <Letter of={span.letter} />
          <b>{range(span.first, span.last, reading.widest)}</b>
          {span.own.length ? `${span.own.length} of its own` : "all handed down"}
        </div>
        <Field state={state} field="original" label="Original">
          <span className={classes.file}>{original?.name ?? "none"}</span>
          <OriginalChooser state={state} give={give} bring={() => openFiles.current?.()} label="Change…" />
        </Field>
        <Field state={state} field="fit" label="Fit">
          <SegmentedControl
            size="xs"
            aria-label="Fit"
            value={span.effective.fit ?? "cover"}
            onChange={(fit) => set({ fit: fit as "cover" | "contain" })}
            data={["cover", "contain"]}
          />
          {span.effective.fit === "contain" && (
            <label className={classes.colour}>
              the rest
              <input
                type="color"
                aria-label="Background colour"
                value={span.effective.background ?? "#d5d9da"}
                onChange={(e) => set({ background: e.currentTarget.value }, `background ${span.letter}`)}
              />
            </label>
          )}
        </Field>
        <Field state={state} field="aim" label="Aim">
          <SegmentedControl
            size="xs"
            aria-label="Aim"
            value={aim.kind === "fixed" ? "fixed" : aim.areas === false ? "focal" : "areas"}
            onChange={(kind) =>
              set({ aim: kind === "fixed" ? { kind, x: 0.5, y: 0.5 } : { kind: "following", areas: kind === "areas" } })
            }
            data={[
              { value: "areas", label: "areas first" },
              { value: "focal", label: "focal point" },
              { value: "fixed", label: "fixed" },
            ]}
          />
          {aim.kind === "fixed" && (
            <>
              <NumberField
                label="Across"
                unit="%"
                value={round(aim.x)}
                set={(v) => set({ aim: { ...aim, x: v / 100 } }, `aim ${span.letter}`)}
              />
              <NumberField
                label="Down"
                unit="%"
                value={round(aim.y)}
                set={(v) => set({ aim: { ...aim, y: v / 100 } }, `aim ${span.letter}`)}
              />
            </>
          )}
        </Field>
        <Field state={state} field="whole" label="Files carry">
          <SegmentedControl
            size="xs"
            aria-label="What the files carry"
            value={span.effective.whole ? "whole" : "cut"}
            onChange={(v) => set({ whole: v === "whole" })}
            data={[
              { value: "cut", label: "what shows" },
              { value: "whole", label: "the whole" },
            ]}
          />
        </Field>
      </div>
      <div className={ground.column} style={{ flex: "1 1 300px", paddingLeft: 0 }}>
        <div className={ground.stack}>
          <Findings of={reading.findings.filter((f) => f.step === "aim" && f.code !== "area")} />
          {original?.alt === null && handle.draft.placement.alt == null && (
            <AskAlt key={original.id} site={site.id} original={original} />
          )}
          <AdviceCard state={state} />
          <AtCursor state={state} />
        </div>
      </div>
    </>
  );
}

/** The map with room for fine work: zoomed, scrolled, areas drawn one after another. */
function LargeMap({
  state,
  original,
  look,
  setAreas,
}: {
  state: DeskState;
  original: Original;
  look: Look;
  setAreas: (areas: Area[], group?: string) => void;
}) {
  const [zoom, setZoom] = useState("1");
  const [drawing, setDrawing] = useState<"keep" | "quiet">();
  const { handle, reading, span, cursor } = state;
  return (
    <div className={classes.large}>
      <div className={classes.row}>
        <SegmentedControl
          size="xs"
          aria-label="Zoom"
          value={zoom}
          onChange={setZoom}
          data={[
            { value: "1", label: "fit" },
            { value: "2", label: "2×" },
            { value: "4", label: "4×" },
          ]}
        />
        {(["keep", "quiet"] as const).map((kind) => (
          <Button
            key={kind}
            variant={drawing === kind ? "filled" : "default"}
            aria-pressed={drawing === kind}
            onClick={() => setDrawing(drawing === kind ? undefined : kind)}
          >
            Draw a {kind} area
          </Button>
        ))}
        <Button variant="default" onClick={handle.undo} disabled={!handle.canUndo}>
          Undo
        </Button>
      </div>
      <div className={classes.largeMap}>
        <PictureMap
          original={original}
          look={look}
          spans={reading.spans.filter((s) => s.effective.original === original.id)}
          chosen={span}
          cursor={cursor}
          zoom={Number(zoom)}
          moveFocal={(focal, group) => handle.look(original.id, { ...look, focal }, `${group} ${original.id}`)}
          setAreas={setAreas}
          settle={handle.settle}
          drawing={drawing}
          drawn={() => setDrawing(undefined)}
        />
      </div>
      <AreaList areas={look.areas ?? []} set={setAreas} />
    </div>
  );
}

/** Asked for as soon as a picture is here without words. */
function AskAlt({ site, original }: { site: number; original: Original }) {
  const describe = useDescribeOriginal(site);
  const [text, setText] = useState("");
  return (
    <form
      className={ground.card}
      onSubmit={(e) => {
        e.preventDefault();
        if (text.trim()) describe.mutate({ id: original.id, alt: text.trim() });
      }}
    >
      <TextInput
        label={`What does ${original.name} show?`}
        placeholder="Alt text, for people who do not see it"
        value={text}
        maxLength={1000}
        onChange={(e) => setText(e.currentTarget.value)}
        error={describe.error?.message}
      />
      <div className={classes.row} style={{ marginTop: 8 }}>
        <Button type="submit" disabled={!text.trim()} loading={describe.isPending}>
          Keep the words
        </Button>
        <Button variant="default" onClick={() => describe.mutate({ id: original.id, alt: "" })}>
          It is decorative
        </Button>
      </div>
    </form>
  );
}

const round = (share: number | undefined) => Math.round((share ?? 0.5) * 10000) / 100;

/** The cursor's sentence: what holds at this one width. */
function AtCursor({ state }: { state: DeskState }) {
  const { reading, cursor, density } = state;
  const span = spanAt(reading.spans, cursor);
  if (!span) return null;
  const w = valueAt(span.frame_w, cursor) ?? 0;
  const h = valueAt(span.frame_h, cursor) ?? 0;
  const seen = windowAt(span, cursor);
  const across = seen ? seen.x1 - seen.x0 : 1;
  const down = seen ? seen.y1 - seen.y0 : 1;
  const areas = reading.bands.filter((b) => b.kind === "area").map((b) => [b, runAt(b, cursor)] as const);
  const row =
    reading.files.find((f) => f.spans.includes(span.letter) && f.density === density) ??
    reading.files.find((f) => f.spans.includes(span.letter));
  const sharp = reading.bands.find((b) => b.kind === "sharp" && b.density === density);
  const needed = valueAt(sharp?.needed, cursor);
  return (
    <div className={classes.facts}>
      <div className={ground.facts}>
        <h3>
          At {cursor} px, span {span.letter}
        </h3>
        <p>
          Frame {size(w, h)}.{" "}
          {span.effective.original &&
            (across > 0.999 && down > 0.999
              ? "All of the picture shows"
              : across <= 0.999 && down <= 0.999
                ? `Shows ${percent(across)} of the width and ${percent(down)} of the height`
                : across <= 0.999
                  ? `Shows ${percent(across)} of the width`
                  : `Shows ${percent(down)} of the height`)}
          {span.held_by?.length ? (
            <>
              , held by <em>{span.held_by[0]}</em>
            </>
          ) : null}
          {span.effective.original && ". "}
          {areas.map(([band, run]) =>
            run && run.verdict !== "whole" ? (
              <strong key={band.name} data-verdict={run.verdict} className={classes.verdict}>
                {run.verdict === "small"
                  ? `${band.name} is shown too small`
                  : `${band.name} is ${run.verdict}: ${percent(1 - (valueAt(band.curve, cursor) ?? run.worst))} of it is out of view`}
                .{" "}
              </strong>
            ) : null,
          )}
        </p>
      </div>
      {row && needed !== undefined && (
        <div className={ground.facts}>
          <h3>File at {density}x</h3>
          <p className="num">
            {row.stem}
            <br />
            needs {Math.round(needed)} · has {row.width_px} px
            {row.share < 0.995 && ` · soft, ${row.share.toFixed(2)}×`}
          </p>
        </div>
      )}
    </div>
  );
}
