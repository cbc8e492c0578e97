/** Aim: where the picture sits in its frame, per span; and another original where the first cannot serve. */

import { Button, Modal, Popover, SegmentedControl, TextInput } from "@mantine/core";
import { Dropzone } from "@mantine/dropzone";
import { useDisclosure } from "@mantine/hooks";
import { useRef, useState } from "react";
import { type Look, type Original, type Treatment, useDescribeOriginal } from "../../../api/queries";
import { useUploads } from "../../../originals/useUploads";
import { AreaList } from "../../../picture/AreaList";
import { type Area, renaming } from "../../../picture/areas";
import { MapTools, useMapTools } from "../../../picture/MapTools";
import { type MapProps, PictureMap, windowAt } from "../../../picture/PictureMap";
import { SuggestionBar, useSuggestion } from "../../../picture/Suggest";
import { percent, plural, size } from "../../../ui/format";
import { partOf, withAreaRenamed, withOriginal } from "../../draft";
import { runAt, spanAt, valueAt } from "../../scale";
import type { DeskState } from "../../types";
import { Field } from "../Field";
import { Findings } from "../Findings";
import { NumberField } from "../frame/NumberField";
import ground from "../Ground.module.css";
import { SpanHead } from "../OwnValues";
import { AdviceCard } from "./AdviceCard";
import classes from "./Aim.module.css";
import { AimCosts } from "./AimCosts";
import { CropField, type Cropping } from "./CropField";
import { KeepsField } from "./KeepsField";
import { OriginalChooser } from "./OriginalChooser";
import { BriefNote, SafeArea } from "./SafeArea";

export function AimStep({ state }: { state: DeskState }) {
  const { span, reading, handle, originals, site, cursor } = state;
  const original = originals.find((o) => o.id === span.effective.original);
  const openFiles = useRef<() => void>(null);
  const giveTo = (letter: string, id: number, look: Look) =>
    handle.change((d) => withOriginal(d, handle.part, letter, reading.spans.at(-1)?.letter ?? letter, id, look));
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
  const setAreas = (areas: Area[], group?: string) => {
    if (!original || !look) return;
    const named = renaming(look.areas ?? [], areas);
    handle.change((d) => {
      const looked = { ...d, looks: { ...d.looks, [original.id]: { ...look, areas } } };
      const here = reading.spans.filter((s) => s.effective.original === original.id).map((s) => s.letter);
      return named ? withAreaRenamed(looked, handle.part, here, ...named) : looked;
    }, group && `${group} ${original.id}`);
  };
  const keepCount = look?.areas?.filter((a) => a.kind !== "quiet").length ?? 0;
  const [drawing, setDrawing] = useState<"keep" | "quiet">();
  const [large, { open: openLarge, close: closeLarge }] = useDisclosure();
  const [cropping, setCropping] = useState<Cropping>({ on: false, lock: "ratio", maySoft: false });
  const [stopped, setStopped] = useState(false);
  const suggestion = useSuggestion(original?.id);
  const shows = span.effective.show ?? "picture";
  const facts = reading.detail?.letter === span.letter ? reading.detail.crop : undefined;
  const sharpest = facts?.needs.filter((n) => n.density <= 2).at(-1);
  const least = cropping.maySoft || !sharpest || !original ? 0 : Math.min(1, sharpest.width_px / original.width_px);
  const overall = reading.safe?.find((s) => s.original === original?.id);
  const going = uploads.list.filter((u) => u.state !== "here");
  const map: MapProps | undefined = original &&
    look && {
      original,
      look,
      setAreas,
      spans: reading.spans.filter((s) => s.effective.original === original.id),
      chosen: span,
      cursor,
      moveFocal: (focal, group) => handle.look(original.id, { ...look, focal }, `${group} ${original.id}`),
      settle: handle.settle,
      crop: span.effective.crop,
      cropping: cropping.on
        ? {
            held: cropping.lock === "ratio",
            least,
            change: (crop, group) => set({ crop }, `${group} ${span.letter}`),
            stopped: setStopped,
          }
        : undefined,
      overall: overall && overall.spans.length > 1 ? overall.safe : undefined,
      suggestion: suggestion.found,
      matter: span.keeps,
    };
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
          {shows !== "picture" ? (
            <div className={classes.nothing}>
              <strong>
                {shows === "colour"
                  ? `Span ${span.letter} shows only the colour of its frame.`
                  : `Span ${span.letter} shows nothing here.`}
              </strong>
              <span>No picture is fetched there.</span>
              <Button variant="default" onClick={() => set({ show: "picture" })}>
                Show a picture
              </Button>
            </div>
          ) : map ? (
            <PictureMap {...map} drawing={drawing} drawn={() => setDrawing(undefined)} />
          ) : (
            <div className={classes.nothing}>
              <strong>No picture in span {span.letter} yet</strong>
              <BriefNote state={state} />
              <span>Drop a picture here, or</span>
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
        {suggestion.failed && (
          <div className={classes.upload} data-state="refused" role="alert">
            {suggestion.failed}
            <button type="button" className="plain" onClick={suggestion.dismiss}>
              dismiss
            </button>
          </div>
        )}
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
        {original && look && suggestion.found && (
          <SuggestionBar
            suggestion={suggestion.found}
            look={look}
            setFocal={(focal) => handle.look(original.id, { ...look, focal })}
            setAreas={setAreas}
            dismiss={suggestion.dismiss}
          />
        )}
        {original && look && shows === "picture" && !suggestion.found && (
          <div className={classes.caption}>
            <b>{size(original.width_px, original.height_px)}</b>
            <Popover position="top-start" trapFocus shadow="md" width={560}>
              <Popover.Target>
                <button type="button" className="plain">
                  {plural(keepCount, "keep area")}
                </button>
              </Popover.Target>
              <Popover.Dropdown>
                <AreaList areas={look.areas ?? []} set={setAreas} suggest={suggestion.ask} />
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
            {cropping.on && stopped ? (
              <span className={classes.stopped} role="status">
                stops here: a smaller crop is soft at {sharpest?.density}x
              </span>
            ) : (
              <span>
                focal {percent(look.focal[0])}, {percent(look.focal[1])}
              </span>
            )}
            <span className={classes.last}>
              <SafeArea state={state} original={original} />
            </span>
          </div>
        )}
      </div>
      {map && (
        <Modal opened={large} onClose={closeLarge} fullScreen title={`${map.original.name}, areas and focal point`}>
          <LargeMap state={state} map={map} />
        </Modal>
      )}
      <div className={ground.column} style={{ flex: "1 1 400px" }}>
        <SpanHead state={state} />
        <Field state={state} field="show" label="Shows">
          <SegmentedControl
            size="xs"
            aria-label="What shows"
            value={shows}
            onChange={(show) => set({ show: show as "picture" | "colour" | "nothing" })}
            data={["picture", "colour", "nothing"]}
          />
          {shows === "colour" && <Colour state={state} set={set} label="the frame" />}
        </Field>
        {shows === "picture" && (
          <>
            <Field state={state} field="original" label="Original">
              <span className={classes.file}>{original?.name ?? "none"}</span>
              <OriginalChooser state={state} give={give} bring={() => openFiles.current?.()} label="Change…" />
            </Field>
            {original && look && (
              <>
                <CropField state={state} cropping={cropping} setCropping={setCropping} original={original} set={set} />
                <KeepsField state={state} areas={look.areas ?? []} set={set} />
              </>
            )}
            <Field state={state} field="fit" label="Fit">
              <SegmentedControl
                size="xs"
                aria-label="Fit"
                value={span.effective.fit ?? "cover"}
                onChange={(fit) => set({ fit: fit as "cover" | "contain" })}
                data={["cover", "contain"]}
              />
              {span.effective.fit === "contain" && <Colour state={state} set={set} label="the rest" />}
            </Field>
            <Field state={state} field="aim" label="Aim">
              <SegmentedControl
                size="xs"
                aria-label="Aim"
                value={aim.kind === "fixed" ? "fixed" : aim.areas === false ? "focal" : "areas"}
                onChange={(kind) =>
                  set({
                    aim: kind === "fixed" ? { kind, x: 0.5, y: 0.5 } : { kind: "following", areas: kind === "areas" },
                  })
                }
                data={[
                  { value: "areas", label: "areas first" },
                  { value: "focal", label: "focal point" },
                  { value: "fixed", label: "fixed" },
                ]}
              />
              <AimCosts state={state} set={set} />
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
          </>
        )}
      </div>
      <div className={ground.column} style={{ flex: "1 1 300px", paddingLeft: 0 }}>
        <div className={ground.stack}>
          <Findings of={reading.findings.filter((f) => f.step === "aim" && f.rule !== "area")} />
          <AdviceCard state={state} />
          {original?.alt === null && partOf(handle.draft, handle.part).alt == null && (
            <AskAlt key={original.id} site={site.id} original={original} />
          )}
          <AtCursor state={state} />
        </div>
      </div>
    </>
  );
}

function Colour({
  state,
  set,
  label,
}: {
  state: DeskState;
  set: (v: Partial<Treatment>, g?: string) => void;
  label: string;
}) {
  const { span } = state;
  return (
    <label className={classes.colour}>
      {label}
      <input
        type="color"
        aria-label="Background colour"
        value={span.effective.background ?? "#d5d9da"}
        onChange={(e) => set({ background: e.currentTarget.value }, `background ${span.letter}`)}
      />
    </label>
  );
}

/** The map with room for fine work: zoomed, scrolled, areas drawn one after another. */
function LargeMap({ state, map }: { state: DeskState; map: MapProps }) {
  const tools = useMapTools();
  const { handle } = state;
  return (
    <div className={classes.large}>
      <div className={classes.row}>
        <MapTools {...tools} />
        <Button variant="default" onClick={handle.undo} disabled={!handle.canUndo}>
          Undo
        </Button>
      </div>
      <div className={classes.largeMap}>
        <PictureMap {...map} {...tools.map} />
      </div>
      <AreaList areas={map.look.areas ?? []} set={map.setAreas} />
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
  const across = seen?.w ?? 1;
  const down = seen?.h ?? 1;
  const areas = reading.bands.filter((b) => b.kind === "area").map((b) => [b, runAt(b, cursor)] as const);
  const row =
    reading.files.find((f) => f.spans.includes(span.letter) && f.density === density) ??
    reading.files.find((f) => f.spans.includes(span.letter));
  const sharp = reading.bands.find((b) => b.kind === "sharp" && b.density === density);
  const needed = valueAt(sharp?.needed, cursor);
  const held = (span.holds ?? []).filter((h) => h.first <= cursor && cursor <= h.last);
  return (
    <div className={classes.facts}>
      <div className={ground.facts}>
        <h3>
          At {cursor} px, span {span.letter}
        </h3>
        <p>
          {span.effective.show === "nothing" ? "Nothing shows here. " : `Frame ${size(w, h)}. `}
          {span.effective.show === "colour" && "Only its colour shows. "}
          {span.x0 &&
            (across > 0.999 && down > 0.999
              ? "All of the picture shows"
              : across <= 0.999 && down <= 0.999
                ? `Shows ${percent(across)} of the width and ${percent(down)} of the height`
                : across <= 0.999
                  ? `Shows ${percent(across)} of the width`
                  : `Shows ${percent(down)} of the height`)}
          {held.map((h, i) => (
            <span key={h.name}>
              {i ? ", " : ", held by "}
              <em>{h.name}</em>
              {h.first > span.first || h.last < span.last ? ` from ${h.first} to ${h.last}` : ""}
            </span>
          ))}
          {span.x0 && ". "}
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
            needs {Math.ceil(needed - 0.01)} · has {row.width_px} px
            {row.share < 0.995 && ` · soft, ${row.share.toFixed(2)}×`}
          </p>
        </div>
      )}
    </div>
  );
}
