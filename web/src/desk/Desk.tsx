/**
 * The desk: one placement on three decks. Sky: what visitors see. Horizon: what is true at every
 * width. Ground: the work.
 */

import { Button } from "@mantine/core";
import { useDisclosure } from "@mantine/hooks";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, useNavigate, useParams } from "react-router";
import { useLatestDelivery } from "../api/deliveries";
import {
  type Finding,
  type Original,
  type Placement,
  type Site,
  type SpanReading,
  type Treatment,
  useOriginals,
  usePlacement,
  useSite,
} from "../api/queries";
import { later } from "../ui/later";
import { Failure, Rows } from "../ui/states";
import { Tip } from "../ui/Tip";
import { leaveField, useKeys } from "../ui/useKeys";
import { featuresOf, under } from "./conditions";
import { type Seen, SeenContext, type Work, WorkContext } from "./context";
import classes from "./Desk.module.css";
import { treatmentsOf, withCommon } from "./draft";
import type { Widths } from "./ground/code/wins";
import { Ground, loadStep } from "./ground/Ground";
import { Horizon } from "./horizon/Horizon";
import { isAlike, shownAt } from "./parts";
import { Conflict, SavedNote } from "./Saved";
import { SkyLine } from "./SkyLine";
import { STEPS, type Step, Steps } from "./Steps";
import { letterAt, Scale, spanAt, widthIn } from "./scale";
import { Sky } from "./sky/Sky";
import { CONDITION_KEYS } from "./sky/Weather";
import { useBringing } from "./useBringing";
import { useConditions } from "./useConditions";
import { reads, useDecks } from "./useDecks";
import { useDraft } from "./useDraft";
import { usePlace } from "./usePlace";
import { usePosts } from "./usePosts";
import { useReading } from "./useReading";
import { useSpot } from "./useSpot";

const NOTHING_LIT: readonly Widths[] = [];

const HistoryMenu = later(
  () => import("./HistoryMenu").then((m) => m.HistoryMenu),
  () => (
    <Button variant="default" disabled>
      History
    </Button>
  ),
);
const Keys = later(
  () => import("./Keys").then((m) => m.Keys),
  () => null,
);

const NONE: Original[] = [];

export function DeskPage() {
  const { siteId, placementId, step } = useParams();
  useEffect(() => loadStep(step ?? "aim"), [step]);
  const site = useSite(Number(siteId));
  const placement = usePlacement(Number(placementId));
  if (site.isError || placement.isError)
    return <Failure error={site.error ?? placement.error} again={() => placement.refetch()} />;
  if (!site.data || !placement.data) return <Rows n={3} height={180} />;
  return <Desk key={placement.data.id} site={site.data} loaded={placement.data} />;
}

function Desk({ site, loaded }: { site: Site; loaded: Placement }) {
  const { place, put, query, named } = usePlace();
  const step = (useParams().step ?? "aim") as Step;
  const [parts, setParts] = useState(loaded.placement.parts);
  // words lie on the first part, whatever lies there beside them
  const isWorded = step === "words" && loaded.placement.words !== null;
  const part = isWorded
    ? shownAt(parts, 0, featuresOf(place.conditions))
    : Math.min(place.part, parts.length - 1);
  const handle = useDraft(loaded, part, site.role !== "look");
  const now = handle.draft.placement.parts;
  // parts come and go with the draft
  if (!isAlike(now, parts)) setParts(now);
  const originals = useOriginals(site.id);
  const delivery = useLatestDelivery(loaded.id);
  const {
    dragged,
    drag,
    keep: keepBreakpoints,
    carrying,
    error: postsError,
  } = usePosts(site, loaded.id, handle);
  const navigate = useNavigate();
  const { decks, toggle, drag: dragLine } = useDecks(step);
  const plan = dragged ?? site.plan;
  const scale = useMemo(
    () => new Scale(plan.narrowest, plan.widest),
    [plan.narrowest, plan.widest],
  );
  // the cursor and the chosen span are one thing; a desk opens at the widest, which hands down
  const last = letterAt(plan.breakpoints, Number.POSITIVE_INFINITY);
  const asked = named && named <= last ? named : undefined;
  const isThere = (w: number) => !asked || place.moved || letterAt(plan.breakpoints, w) === asked;
  const fits = place.width !== undefined && isThere(place.width);
  const cursor = scale.clamp(fits ? (place.width as number) : widthIn(plan, asked ?? last));
  const [costs, askCosts] = useState(false);
  const [first] = useState(handle.draft);
  const [atFirst] = useState(site.revision);
  const made = useChanges(delivery.data && `${delivery.data.id} ${delivery.data.done}`);
  const seenAs = useChanges(originals.data?.map((o) => `${o.alt} ${o.preview}`).join());
  const stamp = `${site.revision} ${made} ${seenAs}`;
  const [ofAllHere, setOfAll] = useState(false);
  const chosen = letterAt(plan.breakpoints, cursor);
  const question = {
    siteId: site.id,
    placementId: loaded.id,
    draft: handle.draft,
    plan: dragged,
    part,
    chosen,
    costs,
    words: step === "words",
    scrollbar: place.scrollbar,
    conditions: place.conditions,
    every: step === "files" || step === "code" || step === "proof",
    stamp,
    stored: handle.draft === first && site.revision === atFirst ? loaded.revision : undefined,
    moves: handle.moves || dragged !== undefined,
  };
  const { reading, error, changed, pending } = useReading(question, handle.previous);
  const read =
    reading?.spans.find((s) => s.letter === chosen) ?? (reading && spanAt(reading.spans, cursor));
  const own = treatmentsOf(handle.draft, part)[chosen];
  const span = useMemo(() => read && atOnce(read, own), [read, own]);
  const bringing = useBringing(site.id, handle);

  const setCursor = useCallback(
    (width: number) => put({ width: scale.clamp(width), moved: true }),
    [put, scale],
  );
  const choose = useCallback(
    (letter: string) => letter !== chosen && setCursor(widthIn(plan, letter)),
    [setCursor, plan, chosen],
  );
  const { choosePart, setConditions } = useConditions(handle, place, put);
  const go = useCallback(
    (to: Step) =>
      navigate(`/sites/${site.id}/placements/${loaded.id}/${to}?${query}`, { replace: true }),
    [navigate, site.id, loaded.id, query],
  );
  const ground = useRef<HTMLElement>(null);
  const seeking = useSpot(step, go, ground);
  const { seek } = seeking;
  const lead = useCallback(
    (finding: Finding) => {
      if (finding.when?.length) setConditions(under(finding.when), finding.part);
      else choosePart(finding.part);
      const letter = finding.spans.at(-1);
      if (letter && !finding.spans.includes(chosen)) choose(letter);
      seek(finding.at, finding.step as Step);
    },
    [choosePart, setConditions, choose, chosen, seek],
  );
  const [help, { open: showHelp, close: closeHelp }] = useDisclosure();
  const neighbour = (by: number) => {
    const i = reading?.spans.findIndex((s) => s.letter === chosen) ?? -1;
    const next = reading?.spans[i + by];
    if (next) choose(next.letter);
  };
  useKeys([
    ["mod+Z", () => !carrying && handle.undo()],
    ["mod+shift+Z", () => !carrying && handle.redo()],
    ["mod+Y", () => !carrying && handle.redo()],
    ["[", () => neighbour(-1)],
    ["]", () => neighbour(1)],
    ["S", toggle],
    ...CONDITION_KEYS.map(
      ({ key, next }) => [key, () => setConditions(next(place.conditions))] as [string, () => void],
    ),
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

  const { breakpoints } = site.plan;
  const addPosts = useCallback(
    (posts: number[]) => keepBreakpoints([...breakpoints, ...posts].sort((a, b) => a - b)),
    [keepBreakpoints, breakpoints],
  );
  const placementId = loaded.id;
  const known = originals.data ?? NONE;
  const areAll = originals.isAll;
  const latest = delivery.data ?? undefined;
  const ofAll = !!reading?.items && (ofAllHere || step === "frame");
  const { change } = handle;
  const { conditions } = place;
  const scoped = useMemo(
    () =>
      ofAll
        ? {
            ...handle,
            treat: (letter: string, values: Treatment, group?: string) =>
              change((d) => withCommon(d, letter, values), group),
          }
        : handle,
    [handle, change, ofAll],
  );
  const work = useMemo<Work | undefined>(
    () =>
      reading &&
      span && {
        site,
        placementId,
        handle: scoped,
        reading,
        error,
        pending,
        originals: known,
        originalsAreAll: areAll,
        delivery: latest,
        scale,
        span,
        choose,
        choosePart,
        lead,
        ofAll,
        setOfAll,
        changed,
        askCosts,
        addPosts,
        bringing,
        conditions,
        setConditions,
        ...seeking,
      },
    [
      site,
      placementId,
      scoped,
      reading,
      error,
      pending,
      known,
      areAll,
      latest,
      scale,
      span,
      choose,
      choosePart,
      lead,
      ofAll,
      changed,
      addPosts,
      bringing,
      conditions,
      setConditions,
      seeking,
    ],
  );
  const [lit, light] = useState<readonly Widths[]>(NOTHING_LIT);
  const seen: Seen = useMemo(
    () => ({
      cursor,
      setCursor,
      density: place.density,
      scrollbar: place.scrollbar,
      setScrollbar: (scrollbar) => put({ scrollbar }),
      lit,
      light,
    }),
    [cursor, setCursor, place.density, place.scrollbar, put, lit],
  );
  const sky = useRef<HTMLElement>(null);

  return (
    <div
      className={classes.desk}
      inert={carrying}
      data-sky={decks.isLow ? "low" : "tall"}
      data-reads={reads(step) || undefined}
      data-step={step}
    >
      <div className={classes.bar}>
        <div className={classes.where}>
          <Link to={`/sites/${site.id}/placements`}>{loaded.page}</Link> ›
          <h1>{handle.draft.placement.name}</h1>
          {handle.draft.placement.kind !== "picture" && <span>{handle.draft.placement.kind}</span>}
        </div>
        <Steps
          step={step}
          go={go}
          findings={reading?.findings}
          old={pending !== "nothing"}
          delivered={!!delivery.data?.is_current}
        />
        <div className={classes.actions}>
          <SavedNote saving={handle.saving} again={handle.save} working={pending !== "nothing"} />
          <Button variant="default" onClick={handle.undo} disabled={!handle.canUndo}>
            Undo
          </Button>
          <Button variant="default" onClick={handle.redo} disabled={!handle.canRedo}>
            Redo
          </Button>
          <HistoryMenu placementId={loaded.id} handle={handle} />
          <Tip label="Keys (?)">
            <Button variant="subtle" px={8} onClick={showHelp} aria-label="Keys">
              ?
            </Button>
          </Tip>
        </div>
      </div>
      {handle.saving.kind === "conflict" && <Conflict handle={handle} conflict={handle.saving} />}
      {handle.refused && (
        <div className={classes.banner} role="alert">
          {handle.refused}
          <Button variant="default" onClick={handle.forget}>
            Close
          </Button>
        </div>
      )}
      {postsError && (
        <div className={classes.banner} role="alert">
          {postsError}
        </div>
      )}
      {!work && error && <Failure error={error} />}
      {!work && !error && <Rows n={3} height={160} />}
      {work && (
        <WorkContext.Provider value={work}>
          <SeenContext.Provider value={seen}>
            <Sky deck={sky} isLow={decks.isLow} />
            <SkyLine decks={decks} sky={sky} ground={ground} toggle={toggle} drag={dragLine} />
            <Horizon
              breakpoints={plan.breakpoints}
              drag={drag}
              keep={keepBreakpoints}
              setDensity={(density) => put({ density })}
            />
            <section
              className={classes.ground}
              aria-label="Ground"
              ref={ground}
              onKeyDown={leaveField}
              style={decks.ground ? { flex: "0 0 auto", height: decks.ground } : undefined}
            >
              <Ground step={step} />
            </section>
          </SeenContext.Provider>
        </WorkContext.Provider>
      )}
      {help && <Keys close={closeHelp} />}
    </div>
  );
}

/**
 * How often something has changed since it was first known: that it becomes known changes nothing.
 */
function useChanges(value: string | null | undefined): number {
  const [known, setKnown] = useState({ value, n: 0 });
  if (known.value !== value) {
    const next = { value, n: known.value === undefined ? known.n : known.n + 1 };
    setKnown(next);
    return next.n;
  }
  return known.n;
}

/**
 * What the designer has just set, before the reading of it is here; all that hangs on the original
 * waits for that.
 */
function atOnce(span: SpanReading, own: Treatment | undefined): SpanReading {
  if (!own || (own.original ?? span.effective.original) !== span.effective.original) return span;
  const values = Object.fromEntries(Object.entries(own).filter(([, v]) => v != null));
  return { ...span, keeps: own.keeps ?? span.keeps, effective: { ...span.effective, ...values } };
}
