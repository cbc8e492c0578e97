/**
 * What is true at every width: the axis, a post at each breakpoint, bands, and the cursor that runs
 * through them.
 */
import { SegmentedControl } from "@mantine/core";
import { useViewportSize } from "@mantine/hooks";
import { useDrag } from "@use-gesture/react";
import { useRef } from "react";
import { useParams } from "react-router";
import type { Band } from "../../api/queries";
import { DRAG } from "../../ui/drag";
import { bytes } from "../../ui/format";
import { under, whenWords } from "../conditions";
import { useDesk } from "../context";
import type { Scale } from "../scale";
import { BandRow } from "./BandRow";
import { Cursor } from "./Cursor";
import classes from "./Horizon.module.css";
import { LadderRow } from "./LadderRow";
import { AddPost, Post } from "./Posts";
import { SpanTags } from "./SpanTags";

interface Props {
  breakpoints: number[];
  drag: (breakpoints: number[]) => void;
  keep: (breakpoints: number[], soon?: boolean) => void;
  setDensity: (density: number) => void;
}

const TICKS = [320, 400, 500, 600, 700, 800, 1000, 1200, 1400, 1700, 2000, 2560, 3200, 3840];

/** Round widths at least `gap` of the axis apart, both ends among them. */
function spaced(scale: Scale, gap: number): number[] {
  const out = [scale.narrowest];
  for (const t of TICKS)
    if (scale.at(t) - scale.at(out[out.length - 1] as number) >= gap && 1 - scale.at(t) >= gap)
      out.push(t);
  return [...out, scale.widest];
}

/** The name of a band; underlined, and pressed, where it fails in other weather. */
function BandName({ band }: { band: Band }) {
  const { conditions, setConditions } = useDesk();
  const [first] = band.elsewhere;
  if (!first) return <>{band.name}</>;
  const said = `${band.name} fails ${band.elsewhere.map(whenWords).join("; ")}`;
  return (
    <button
      type="button"
      className={classes.elsewhere}
      title={said}
      aria-label={said}
      onClick={() => setConditions(under(first, conditions))}
    >
      {band.name}
    </button>
  );
}

export function Horizon({ breakpoints, drag, keep, setDensity }: Props) {
  const { site, reading, scale, cursor, setCursor, density, choosePart } = useDesk();
  const axis = useRef<HTMLDivElement>(null);
  const widthAt = (clientX: number) => {
    const box = axis.current?.getBoundingClientRect();
    return box ? scale.width((clientX - box.left) / box.width) : cursor;
  };
  const bindCursor = useDrag(({ xy: [x], event }) => {
    event.preventDefault();
    setCursor(widthAt(x));
  }, DRAG);
  const { width: screen } = useViewportSize();
  const ticks = spaced(scale, 40 / Math.max(200, screen - 160));
  const { step } = useParams();
  const ofPart = reading.bands.filter(
    (b) =>
      (b.kind !== "sharp" || b.density === density) &&
      // in Frame it is the frame's own width that counts, elsewhere the files for it
      (step === "frame" ? b.kind !== "weight" && b.kind !== "sharp" : b.kind !== "frame"),
  );
  const ofWords = reading.words?.bands ?? [];
  const bands =
    step === "words" && reading.words
      ? [...ofPart.filter((b) => b.kind === "area"), ...ofWords]
      : ofPart;
  if (reading.items) bands.unshift(reading.items.together);
  bands.unshift(...(reading.own?.bands ?? []));
  if (reading.one_of) bands.push(reading.one_of);
  const ofAll = step === "frame" ? null : reading.items?.weight;
  if (ofAll) bands.push(ofAll);
  const budget = (b: Band) => (b === ofAll && reading.items ? reading.items : reading).budget_bytes;
  const chooseFailing = (first: number) => {
    const found =
      reading.items?.failing.find((f) => f.first === first) ?? reading.items?.failing[0];
    if (found?.parts[0] !== undefined) choosePart(found.parts[0]);
  };
  const ladders = step === "files" ? reading.ladders.filter((l) => l.part === reading.part) : [];
  return (
    <section className={classes.horizon} aria-label="Horizon: what is true at every width">
      <div className={classes.names}>
        <div className={classes.seen}>
          <SegmentedControl
            size="xs"
            aria-label="Density that bands are seen at"
            value={String(density)}
            onChange={(v) => setDensity(Number(v))}
            data={site.plan.densities.map((d) => ({ value: String(d), label: `${d}x` }))}
          />
          <AddPost breakpoints={breakpoints} cursor={cursor} scale={scale} keep={keep} />
        </div>
        {bands.map((b) => (
          <div
            key={`${b.kind} ${b.name}`}
            className={`${classes.name} ${b.kind === "weight" || b.kind === "frame" ? classes.weightName : ""}`}
            title={b.name}
          >
            <BandName band={b} />
            {b.kind === "weight" && <span>budget {bytes(budget(b))}</span>}
          </div>
        ))}
        {ladders.length > 0 && (
          <div className={`${classes.name} ${classes.ladderName}`}>Files at {density}x</div>
        )}
      </div>
      <div className={classes.axis} ref={axis}>
        <SpanTags />
        <div className={classes.ticks} {...bindCursor()}>
          {ticks.map((t) => (
            <span key={t} style={{ left: scale.percent(t) }}>
              {t}
            </span>
          ))}
        </div>
        <div className={classes.bands} {...bindCursor()}>
          {bands.map((b) => (
            <BandRow
              key={`${b.kind} ${b.name}`}
              band={b}
              scale={scale}
              budget={budget(b)}
              cursor={cursor}
              pressed={b.kind === "together" ? chooseFailing : undefined}
            />
          ))}
        </div>
        {ladders.length > 0 && <LadderRow ladders={ladders} widthAt={widthAt} />}
        {breakpoints.map((_, i) => (
          <Post
            // biome-ignore lint/suspicious/noArrayIndexKey: a post is its place among the posts while it moves
            key={i}
            index={i}
            breakpoints={breakpoints}
            scale={scale}
            widthAt={widthAt}
            drag={drag}
            keep={keep}
            letter={reading.spans[i]?.letter ?? "A"}
          />
        ))}
        <Cursor bind={bindCursor} />
      </div>
    </section>
  );
}
