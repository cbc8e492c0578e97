/**
 * The placement at the cursor with the page around it, to scale, and every edge of it that can be
 * pulled.
 */
import { useElementSize } from "@mantine/hooks";
import { type ReactNode, useMemo, useState } from "react";
import { usePlacement } from "../../../api/queries";
import { useKeys } from "../../../ui/useKeys";
import { useDesk } from "../../context";
import { usualAt } from "../../parts";
import { heightAt, spanAt } from "../../scale";
import { PaneFrame } from "../../sky/PaneFrame";
import type { Held, StageReading } from "./ask";
import { DesignBar } from "./DesignBar";
import { DesignLayer, DrawLayer } from "./DesignLayer";
import { designAt, type Seen, useDesigns } from "./designs";
import { FirstFrame } from "./FirstFrame";
import { Grip, type Hand } from "./Grip";
import { PageLines } from "./PageLines";
import { apart, placeOf } from "./pulling";
import { Spots } from "./Spots";
import classes from "./Stage.module.css";
import { useDrawn, useOverlay } from "./useOverlay";
import { type InHand, usePull } from "./usePull";
import { useStage } from "./useStage";

/** The page's own head above the placement, in the panes. */
const HEAD_PX = 60;
/** So much of the page is seen below the placement, in CSS px; and so much of it at least. */
const BELOW_PX = 140;
const LEAST_BELOW_PX = 36;
/** What is very high is drawn no narrower than this share of the room, and scrolled. */
const LEAST_SHARE = 0.45;

/** `bar` stands before what is told of the design. */
export function FrameStage({ bar }: { bar: ReactNode }) {
  const { reading, site, cursor, scrollbar, handle, conditions, placementId } = useDesk();
  const { ref, width: room, height: high } = useElementSize();
  const letter = spanAt(reading.spans, cursor)?.letter ?? "A";
  const screen = heightAt(reading, cursor);
  const part = usualAt(handle.draft.placement.parts, handle.part);
  const { inHand, said, take, move, drop, takeBack } = usePull();
  const page_id = usePlacement(placementId).data?.page_id;
  const designs = useDesigns(page_id).data ?? [];
  const design = designAt(designs, letter, cursor);
  const overlay = useOverlay();
  useKeys([["G", () => design && overlay.setLies(overlay.lies === "off" ? "over" : "off")]]);
  const drawn = useDrawn(page_id, placementId);
  const [drawing, setDrawing] = useState(false);
  const [pointed, setPointed] = useState<{ x: number; y: number }>();
  // where the spot is on the design it is on the stage too
  const spot = drawn.on(design?.id);
  const top = spot?.top != null ? HEAD_PX - spot.top : 0;
  const lies = design && drawing && overlay.lies === "off" ? "over" : overlay.lies;
  const marks = useMemo(() => {
    const left = design ? (cursor - design.drawn_for) / 2 : 0;
    return spot?.top != null && spot.bottom != null
      ? { x: [left + spot.left, left + spot.right], y: [spot.bottom - spot.top] }
      : { x: [], y: [] };
  }, [design, spot, cursor]);
  const held: Held = useMemo(
    () => ({
      siteId: site.id,
      placementId,
      draft: handle.draft,
      plan: undefined,
      part,
      letter,
      width: cursor,
      height: screen,
      scrollbar,
      fold: screen - HEAD_PX,
      marks,
    }),
    [site.id, placementId, handle.draft, part, letter, cursor, screen, scrollbar, marks],
  );
  const { staged, isNow, refused } = useStage(held, !!inHand);
  const shown = staged?.reading;
  // what is in hand stays as large as it is
  const boxed = HEAD_PX + (inHand ? inHand.from.reading.high : (shown?.high ?? screen));
  const whole = room ? Math.min(room / cursor, 1.25) : 0;
  const fits = Math.min(whole, high / (boxed + LEAST_BELOW_PX));
  const scale = Math.max(fits, whole * LEAST_SHARE);
  const seen = Math.max(boxed + BELOW_PX, scale ? high / scale : 0);
  const page = Math.max(screen, Math.ceil(seen));
  const rule = spanAt(reading.spans, cursor)?.effective.height;
  const onScreen =
    rule?.kind === "vh" || (rule?.kind === "ratio" && (rule.least_vh ?? rule.greatest_vh) != null);
  const places = useMemo(() => apart(shown?.handles ?? [], scale), [shown, scale]);
  const hand: Hand = {
    take: (h, at) => staged && take(staged, h, at),
    move,
    drop,
    takeBack,
  };
  return (
    <div className={classes.stage}>
      <div className={classes.room}>
        <div className={classes.measure} ref={ref} />
        {scale > 0 && high > 0 && (
          <div
            className={classes.page}
            style={{ width: cursor * scale, height: seen * scale }}
            onPointerMove={(e) => {
              if (!design || !shown) return;
              const box = e.currentTarget.getBoundingClientRect();
              setPointed({
                x: (e.clientX - box.left) / scale,
                y: (e.clientY - box.top) / scale - HEAD_PX,
              });
            }}
            onPointerLeave={() => setPointed(undefined)}
          >
            {design && lies === "under" && (
              <DesignLayer {...{ design, lies, scale, top }} share={100} width={cursor} />
            )}
            <div
              className={classes.pane}
              aria-hidden="true"
              style={design && lies === "under" ? { opacity: 1 - overlay.share / 100 } : undefined}
            >
              <PaneFrame
                conditions={conditions}
                reading={reading}
                site={site.name}
                width={cursor}
                height={onScreen ? screen : page}
                scale={scale}
                scrollbar={scrollbar}
              />
            </div>
            {design && lies !== "under" && (
              <div className={classes.over}>
                <DesignLayer
                  {...{ design, lies, scale, top }}
                  share={overlay.share}
                  width={cursor}
                />
              </div>
            )}
            {shown && <Around of={shown} scale={scale} fold={screen} />}
            {inHand && <Before of={inHand} scale={scale} />}
            {shown?.handles
              .filter((h) => !inHand || h.id === inHand.handle.id)
              .map((h) => {
                const mine = inHand?.handle.id === h.id ? inHand : undefined;
                return (
                  <Grip
                    key={h.id}
                    handle={h}
                    hand={hand}
                    found={mine?.found}
                    held={!!mine}
                    at={mine ? (mine.found?.at ?? mine.at) : placeOf(h)}
                    scale={scale}
                    top={HEAD_PX}
                    place={places.get(h.id) ?? 0}
                    pale={!isNow && !mine}
                  />
                );
              })}
            {design && drawing && (
              <DrawLayer
                {...{ design, scale, top }}
                width={cursor}
                done={(seen) => {
                  drawn.draw(design.id, seen);
                  setDrawing(false);
                }}
              />
            )}
          </div>
        )}
      </div>
      {drawn.open.length > 0 && !drawing && (
        <Spots
          seen={[...byWidth(drawn.open.map((s) => s.seen))]}
          take={drawn.take}
          forget={drawn.forget}
        />
      )}
      {!drawing && drawn.open.length === 0 && drawn.all.length > 1 && (
        <PageLines seen={drawn.all.map((s) => s.seen)} />
      )}
      <FirstFrame
        widths={isNow ? (shown?.first ?? []) : []}
        draw={design && !drawing ? () => setDrawing(true) : undefined}
      />
      <div className={classes.said} aria-live="polite">
        {inHand ? <Beside of={inHand} /> : <span>{refused ?? shown?.told.join(" · ")}</span>}
        {said && <strong role="alert">{said}</strong>}
        {!inHand && pointed && shown && lies !== "off" && (
          <span aria-hidden="true">{distances(pointed, shown)}</span>
        )}
        {!inHand && design && design.drawn_for !== cursor && lies !== "off" && (
          <span>
            the design is of {design.drawn_for} px: it lies in the middle of {cursor} px, unscaled
          </span>
        )}
      </div>
      <div className={classes.bar}>
        {bar}
        <DesignBar
          page={page_id}
          design={design}
          others={designs.filter((d) => d !== design)}
          overlay={overlay}
          drawing={drawing}
          draw={() => setDrawing(!drawing)}
        />
      </div>
    </div>
  );
}

/** How far what is pointed at is from the frame's edges, in whole CSS px. */
function distances({ x, y }: { x: number; y: number }, of: StageReading): string {
  const [left, right] = [x - of.left, of.left + of.wide - x].map(Math.round);
  const [upper, lower] = [y, of.high - y].map(Math.round);
  return `pointed at: ${left} px from the left edge, ${right} from the right, ${upper} from the upper, ${lower} from the lower`;
}

/** Of rectangles of one width the last that was drawn. */
const byWidth = (seen: Seen[]) => new Map(seen.map((s) => [s.width, s])).values();

/** What stands beside the hand. */
function Beside({ of }: { of: InHand }) {
  const { found, handle } = of;
  const told = found?.told ?? of.from.reading.told;
  return (
    <>
      <b>{told[0]}</b>
      <span>{[...new Set([...told.slice(1), found?.words ?? handle.said])].join(" · ")}</span>
      {found?.stop && <em>{found.stop}</em>}
    </>
  );
}

interface AroundProps {
  of: StageReading;
  scale: number;
  fold: number;
}

/** Container, columns, fold, and what the file cannot fill sharply. */
function Around({ of, scale, fold }: AroundProps) {
  const [from, to] = of.container as [number, number];
  const soft = of.sharp_to_px != null && of.wide > of.sharp_to_px;
  return (
    <div className={classes.around} aria-hidden="true">
      {(of.columns as [number, number][]).map(([a, b]) => (
        <i key={a} className={classes.column} style={{ left: a * scale, width: (b - a) * scale }} />
      ))}
      <i className={classes.container} style={{ left: from * scale, width: (to - from) * scale }} />
      <i className={classes.fold} style={{ top: fold * scale }}>
        <span>fold, {fold} px</span>
      </i>
      {soft && (
        <i
          className={classes.soft}
          title="Wider than the original is sharp at the greatest density"
          style={{
            left: (of.left + (of.sharp_to_px ?? 0)) * scale,
            width: (of.wide - (of.sharp_to_px ?? 0)) * scale,
            top: HEAD_PX * scale,
            height: of.high * scale,
          }}
        />
      )}
    </div>
  );
}

/** The frame as it was. */
function Before({ of, scale }: { of: InHand; scale: number }) {
  const { left, wide, high } = of.from.reading;
  return (
    <i
      className={classes.before}
      aria-hidden="true"
      style={{
        left: left * scale,
        top: HEAD_PX * scale,
        width: wide * scale,
        height: high * scale,
      }}
    />
  );
}
