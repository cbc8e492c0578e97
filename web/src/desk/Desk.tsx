/** The desk: one placement on three decks. Sky: what visitors see. Horizon: what is true at every width. Ground: the work. */
import { Button, Kbd, Modal, Table, Tooltip } from "@mantine/core";
import { useDebouncedValue, useDisclosure, useHotkeys } from "@mantine/hooks";
import { useCallback, useEffect, useMemo, useState } from "react";
import { Link, useNavigate, useParams, useSearchParams } from "react-router";
import {
  type Placement,
  type Site,
  type SpanReading,
  type Treatment,
  useLatestDelivery,
  useOriginals,
  usePlacement,
  useSite,
} from "../api/queries";
import { Failure, Rows } from "../ui/states";
import classes from "./Desk.module.css";
import { treatmentsOf } from "./draft";
import { AimStep } from "./ground/aim/AimStep";
import { CodeStep } from "./ground/code/CodeStep";
import { FilesStep } from "./ground/files/FilesStep";
import { FrameStep } from "./ground/frame/FrameStep";
import { ProofStep } from "./ground/proof/ProofStep";
import { HistoryMenu } from "./HistoryMenu";
import { Horizon } from "./horizon/Horizon";
import { Scale, spanAt } from "./scale";
import { Sky } from "./sky/Sky";
import type { DeskState } from "./types";
import { type DraftHandle, type Saving, useDraft } from "./useDraft";
import { usePosts } from "./usePosts";
import { useReading } from "./useReading";

export const STEPS = [
  ["frame", "Frame"],
  ["aim", "Aim"],
  ["files", "Files"],
  ["code", "Code"],
  ["proof", "Proof"],
] as const;
export type Step = (typeof STEPS)[number][0];

export function DeskPage() {
  const { siteId, placementId } = useParams();
  const site = useSite(Number(siteId));
  const placement = usePlacement(Number(placementId));
  if (site.isError || placement.isError)
    return <Failure error={site.error ?? placement.error} again={() => placement.refetch()} />;
  if (!site.data || !placement.data) return <Rows n={3} height={180} />;
  return <Desk key={placement.data.id} site={site.data} loaded={placement.data} />;
}

function Desk({ site, loaded }: { site: Site; loaded: Placement }) {
  const { place, put, query } = usePlace();
  const parts = loaded.placement.parts?.length ?? 1;
  const part = Math.min(place.part, parts - 1);
  const handle = useDraft(loaded, part);
  const originals = useOriginals(site.id);
  const delivery = useLatestDelivery(loaded.id);
  const { dragged, drag, keep: keepBreakpoints, carrying, error: postsError } = usePosts(site, loaded.id, handle);
  const navigate = useNavigate();
  const step = (useParams().step ?? "aim") as Step;
  const scale = useMemo(
    () => new Scale(dragged?.narrowest ?? site.plan.narrowest ?? 320, dragged?.widest ?? site.plan.widest ?? 2560),
    [dragged, site.plan],
  );
  const cursor = scale.clamp(place.width);
  const density = place.density;
  const plan = dragged ?? site.plan;
  const [costs, askCosts] = useState(false);
  const posts = plan.breakpoints ?? [];
  // an address may name a span that is no longer there
  const named = place.span && place.span <= spanLetter(posts, Number.POSITIVE_INFINITY) ? place.span : undefined;
  const chosen = named ?? spanLetter(posts, cursor);
  const { reading, error, changedSince } = useReading({
    siteId: site.id,
    placementId: loaded.id,
    draft: handle.draft,
    plan: dragged,
    part,
    chosen,
    costs,
    stamp: `${site.revision} ${delivery.data?.id} ${delivery.data?.done} ${originals.data?.map((o) => o.alt).join()}`,
    moves: handle.moves || dragged !== undefined,
  });
  const read = reading?.spans.find((s) => s.letter === chosen) ?? (reading && spanAt(reading.spans, cursor));
  const span = read && atOnce(read, treatmentsOf(handle.draft, part)[chosen]);

  const setCursor = useCallback((width: number) => put({ width: scale.clamp(width), span: undefined }), [put, scale]);
  const choose = useCallback((letter: string) => put({ span: letter }), [put]);
  const go = useCallback(
    (to: Step) => navigate(`/sites/${site.id}/placements/${loaded.id}/${to}?${query}`, { replace: true }),
    [navigate, site.id, loaded.id, query],
  );
  const [help, { open: showHelp, close: closeHelp }] = useDisclosure();

  const neighbour = useCallback(
    (by: number) => {
      const i = reading?.spans.findIndex((s) => s.letter === chosen) ?? -1;
      const next = reading?.spans[i + by];
      if (next) choose(next.letter);
    },
    [reading, chosen, choose],
  );
  useHotkeys([
    ["mod+Z", () => carrying || handle.undo()],
    ["mod+shift+Z", () => carrying || handle.redo()],
    ["mod+Y", () => carrying || handle.redo()],
    ["[", () => neighbour(-1)],
    ["]", () => neighbour(1)],
    ["?", showHelp],
    ["shift+?", showHelp],
    ...STEPS.map(([name], i) => [String(i + 1), () => go(name)] as [string, () => void]),
  ]);
  useEffect(() => {
    document.title = `${handle.draft.placement.name} · Sky Pane`;
    return () => {
      document.title = "Sky Pane";
    };
  }, [handle.draft.placement.name]);

  const state: DeskState | undefined = reading &&
    span && {
      site,
      placementId: loaded.id,
      handle,
      reading,
      error,
      originals: originals.data ?? [],
      delivery: delivery.data ?? undefined,
      scale,
      cursor,
      setCursor,
      density,
      span,
      choose,
      touched: changedSince(handle.previous),
      askCosts,
      addPosts: (posts) => keepBreakpoints([...(site.plan.breakpoints ?? []), ...posts].sort((a, b) => a - b)),
    };

  return (
    <div className={classes.desk} inert={carrying}>
      <div className={classes.bar}>
        <div className={classes.where}>
          <Link to={`/sites/${site.id}/placements`}>{loaded.page}</Link> ›<h1>{handle.draft.placement.name}</h1>
        </div>
        <nav aria-label="Steps" className={classes.steps}>
          {STEPS.map(([name, label], i) => {
            const findings = reading?.findings.filter((f) => f.step === name).length ?? 0;
            const done =
              findings === 0 && (name === "frame" || name === "aim" || name === "code" || delivery.data?.is_current);
            return (
              <button
                key={name}
                type="button"
                className={classes.step}
                aria-current={step === name ? "step" : undefined}
                onClick={() => go(name)}
                title={`${i + 1}`}
              >
                <span className={classes.dot} data-state={findings ? "findings" : done ? "done" : "open"} />
                {label}
                {findings > 0 && (
                  <span className={classes.count}>
                    {findings}
                    <span className="srOnly"> findings</span>
                  </span>
                )}
              </button>
            );
          })}
        </nav>
        <div className={classes.actions}>
          <SavedNote saving={handle.saving} again={handle.save} />
          <Button variant="default" onClick={handle.undo} disabled={!handle.canUndo}>
            Undo
          </Button>
          <Button variant="default" onClick={handle.redo} disabled={!handle.canRedo}>
            Redo
          </Button>
          <HistoryMenu placementId={loaded.id} handle={handle} />
          <Tooltip label="Keys (?)">
            <Button variant="subtle" px={8} onClick={showHelp} aria-label="Keys">
              ?
            </Button>
          </Tooltip>
        </div>
      </div>
      {handle.saving.kind === "conflict" && <Conflict handle={handle} conflict={handle.saving} />}
      {postsError && (
        <div className={classes.banner} role="alert">
          {postsError}
        </div>
      )}
      {!state && error && <Failure error={error} />}
      {!state && !error && <Rows n={3} height={160} />}
      {state && (
        <>
          <Sky state={state} />
          <Horizon
            state={state}
            breakpoints={plan.breakpoints ?? []}
            drag={drag}
            keep={keepBreakpoints}
            setDensity={(density) => put({ density })}
          />
          <section className={classes.ground} aria-label="Ground">
            {step === "frame" && <FrameStep state={state} />}
            {step === "aim" && <AimStep state={state} />}
            {step === "files" && <FilesStep state={state} />}
            {step === "code" && <CodeStep state={state} />}
            {step === "proof" && <ProofStep state={state} />}
          </section>
        </>
      )}
      <Modal opened={help} onClose={closeHelp} title="Keys">
        <Keys />
      </Modal>
    </div>
  );
}

/** What the designer has just set, before the reading of it is here; all that hangs on the original waits for that. */
function atOnce(span: SpanReading, own: Treatment | undefined): SpanReading {
  if (!own || (own.original ?? span.effective.original) !== span.effective.original) return span;
  const values = Object.fromEntries(Object.entries(own).filter(([, v]) => v != null));
  return { ...span, keeps: own.keeps ?? span.keeps, effective: { ...span.effective, ...values } };
}

/** The letter of the span at a width. */
const spanLetter = (breakpoints: readonly number[], width: number) =>
  String.fromCharCode(65 + breakpoints.filter((b) => b < width).length);

interface Place {
  width: number;
  /** Which part of the placement is worked on, from 0. */
  part: number;
  span: string | undefined;
  density: number;
}

const asQuery = (place: Place) =>
  new URLSearchParams({
    width: String(place.width),
    ...(place.part ? { part: String(place.part + 1) } : {}),
    ...(place.span ? { span: place.span } : {}),
    ...(place.density === 2 ? {} : { density: String(place.density) }),
  }).toString();

/** Where on the desk the designer is. The address follows a moment later, so that dragging never waits for it. */
function usePlace() {
  const [search, setSearch] = useSearchParams();
  const [place, setPlace] = useState<Place>(() => ({
    width: Number(search.get("width")) || 632,
    part: Math.max(0, (Number(search.get("part")) || 1) - 1),
    span: search.get("span") ?? undefined,
    density: Number(search.get("density")) || 2,
  }));
  const put = useCallback((values: Partial<Place>) => setPlace((before) => ({ ...before, ...values })), []);
  const query = asQuery(place);
  const [settled] = useDebouncedValue(query, 150);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only a new place writes the address
  useEffect(() => setSearch(settled, { replace: true }), [settled]);
  return { place, put, query };
}

function SavedNote({ saving, again }: { saving: Saving; again: () => void }) {
  const words: Record<Saving["kind"], string> = {
    saved: "Saved",
    saving: "Saving…",
    waiting: "Saving…",
    refused: "Not saved",
    retrying: "",
    conflict: "Not saved",
  };
  if (saving.kind === "retrying") {
    const { status, message } = saving.error;
    const why =
      status > 0
        ? "Not saved yet, trying again"
        : navigator.onLine
          ? "No answer, changes wait"
          : "Offline, changes wait";
    return (
      <span className={classes.saved} data-kind={saving.kind} role="status" title={message}>
        {why}
      </span>
    );
  }
  return (
    <span className={classes.saved} data-kind={saving.kind} role="status">
      {saving.kind === "refused" ? (
        <Tooltip label={saving.error.message} multiline w={280}>
          <button type="button" className="plain" onClick={again}>
            {words.refused}
          </button>
        </Tooltip>
      ) : (
        words[saving.kind]
      )}
    </span>
  );
}

function Conflict({ handle, conflict }: { handle: DraftHandle; conflict: Extract<Saving, { kind: "conflict" }> }) {
  const { theirs, said, differs } = conflict;
  return (
    <div className={classes.banner} role="alert">
      <span>
        {said} {differs.length > 0 && `Yours and theirs differ in: ${differs.join("; ")}. `}
        Nothing is overwritten until you choose.
      </span>
      <Button onClick={() => handle.keepMine(theirs)}>Keep mine</Button>
      <Button variant="default" onClick={() => handle.takeTheirs(theirs)}>
        Take theirs
      </Button>
    </div>
  );
}

const KEYS: [string[], string][] = [
  [["1", "…", "5"], "Frame, Aim, Files, Code, Proof"],
  [["[", "]"], "Previous and next span"],
  [["Ctrl", "Z"], "Undo"],
  [["Ctrl", "Shift", "Z"], "Redo"],
  [["←", "→"], "Move the focused cursor, post, focal point, area or crop; with Shift ten times as far"],
  [["Alt", "←", "→"], "Resize the focused area or crop"],
  [["D"], "Duplicate the focused area"],
  [["Delete"], "Remove the focused post or area"],
  [["Enter"], "Open the focused pane large"],
  [["?"], "This list"],
];

function Keys() {
  return (
    <Table>
      <Table.Tbody>
        {KEYS.map(([keys, what]) => (
          <Table.Tr key={what}>
            <Table.Td style={{ whiteSpace: "nowrap" }}>
              {keys.map((k) => (k === "…" ? " … " : <Kbd key={k}>{k}</Kbd>))}
            </Table.Td>
            <Table.Td>{what}</Table.Td>
          </Table.Tr>
        ))}
      </Table.Tbody>
    </Table>
  );
}
