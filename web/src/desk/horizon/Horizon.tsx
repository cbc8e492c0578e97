/** What is true at every width: the axis, a post at each breakpoint, bands, and the cursor that runs through them. */
import { SegmentedControl, Tooltip } from "@mantine/core";
import { useViewportSize } from "@mantine/hooks";
import { useDrag } from "@use-gesture/react";
import { type KeyboardEvent, useRef, useState } from "react";
import type { Band } from "../../api/queries";
import { DRAG } from "../../ui/drag";
import { bytes, percent, range, typed } from "../../ui/format";
import { Letter, spanColour } from "../../ui/Letter";
import { runAt, type Scale, spanAt, valueAt } from "../scale";
import type { DeskState } from "../types";
import classes from "./Horizon.module.css";

interface Props {
  state: DeskState;
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
    if (scale.at(t) - scale.at(out[out.length - 1] as number) >= gap && 1 - scale.at(t) >= gap) out.push(t);
  return [...out, scale.widest];
}

export function Horizon({ state, breakpoints, drag, keep, setDensity }: Props) {
  const { reading, scale, cursor, setCursor, span, choose, density } = state;
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
  const bands = reading.bands.filter((b) => b.kind !== "sharp" || b.density === density);
  return (
    <section className={classes.horizon} aria-label="Horizon: what is true at every width">
      <div className={classes.names}>
        <div className={classes.seen}>
          <SegmentedControl
            size="xs"
            aria-label="Density that bands are seen at"
            value={String(density)}
            onChange={(v) => setDensity(Number(v))}
            data={(state.site.plan.densities ?? [1, 2]).map((d) => ({ value: String(d), label: `${d}x` }))}
          />
          <AddPost breakpoints={breakpoints} cursor={cursor} scale={scale} keep={keep} />
        </div>
        {bands.map((b) => (
          <div key={`${b.kind} ${b.name}`} className={classes.name} title={b.name}>
            {b.name}
          </div>
        ))}
      </div>
      <div className={classes.axis} ref={axis}>
        <div className={classes.tags}>
          {reading.spans.map((s) => (
            <button
              key={s.letter}
              type="button"
              className={classes.tag}
              aria-pressed={s.letter === span.letter}
              style={{
                left: scale.percent(s.first),
                width: `${(scale.at(Math.min(s.last + 1, scale.widest)) - scale.at(s.first)) * 100}%`,
              }}
              onClick={() => choose(s.letter)}
              title={s.title || undefined}
            >
              <Letter of={s.letter} />
              <b>{range(s.first, s.last, reading.widest)}</b>
              <span>{s.frame_text}</span>
            </button>
          ))}
        </div>
        <div className={classes.ticks} {...bindCursor()}>
          {ticks.map((t) => (
            <span key={t} style={{ left: scale.percent(t) }}>
              {t}
            </span>
          ))}
        </div>
        <div className={classes.bands} {...bindCursor()}>
          {bands.map((b) => (
            <BandRow key={`${b.kind} ${b.name}`} band={b} scale={scale} budget={reading.budget_bytes} cursor={cursor} />
          ))}
        </div>
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
        <Cursor state={state} bind={bindCursor} />
      </div>
    </section>
  );
}

function Cursor({ state, bind }: { state: DeskState; bind: ReturnType<typeof useDrag> }) {
  const { cursor, setCursor, scale, reading } = state;
  const [text, setText] = useState<string>();
  const here = spanAt(reading.spans, cursor);
  const step = (e: KeyboardEvent) => {
    const by = e.shiftKey ? 10 : 1;
    const to = { ArrowLeft: cursor - by, ArrowRight: cursor + by, Home: scale.narrowest, End: scale.widest }[e.key];
    if (to === undefined) return;
    e.preventDefault();
    setCursor(to);
  };
  const commit = () => {
    const width = typed(text ?? "");
    if (width !== undefined) setCursor(width);
    setText(undefined);
  };
  return (
    <div className={classes.cursor} style={{ left: scale.percent(cursor) }}>
      <div
        className={classes.grip}
        role="slider"
        tabIndex={0}
        aria-label="Cursor: viewport width"
        aria-valuemin={scale.narrowest}
        aria-valuemax={scale.widest}
        aria-valuenow={cursor}
        aria-valuetext={`${cursor} px, span ${here?.letter}`}
        onKeyDown={step}
        {...bind()}
      />
      <input
        className={classes.typed}
        aria-label="Type a viewport width"
        inputMode="numeric"
        value={text ?? String(cursor)}
        onFocus={(e) => e.currentTarget.select()}
        onChange={(e) => setText(e.currentTarget.value)}
        onBlur={commit}
        onKeyDown={(e) => {
          if (e.key === "Enter") commit();
          if (e.key === "Escape") setText(undefined);
        }}
      />
    </div>
  );
}

interface PostProps {
  index: number;
  breakpoints: number[];
  scale: Scale;
  letter: string;
  widthAt: (x: number) => number;
  drag: (b: number[]) => void;
  keep: (b: number[], soon?: boolean) => void;
}

function Post({ index, breakpoints, scale, widthAt, drag, keep, letter }: PostProps) {
  const value = breakpoints[index] as number;
  const least = (breakpoints[index - 1] ?? scale.narrowest - 1) + 1;
  const most = (breakpoints[index + 1] ?? scale.widest) - 1;
  const moved = (to: number) => breakpoints.map((b, i) => (i === index ? Math.min(most, Math.max(least, to)) : b));
  const bind = useDrag(({ xy: [x], last, tap, event }) => {
    event.stopPropagation();
    if (tap) return;
    const next = moved(widthAt(x) - 1);
    last ? keep(next) : drag(next);
  }, DRAG);
  return (
    <Tooltip label={`${letter} ends at ${value} px. Drag to move, Delete removes it.`} openDelay={500}>
      <div
        className={classes.post}
        style={{ left: scale.percent(value + 1) }}
        role="slider"
        tabIndex={0}
        aria-label={`Breakpoint: last width of span ${letter}`}
        aria-valuemin={least}
        aria-valuemax={most}
        aria-valuenow={value}
        onKeyDown={(e) => {
          const by = e.shiftKey ? 10 : 1;
          if (e.key === "ArrowLeft") keep(moved(value - by), true);
          else if (e.key === "ArrowRight") keep(moved(value + by), true);
          else if (e.key === "Delete" || e.key === "Backspace") keep(breakpoints.filter((_, i) => i !== index));
          else return;
          e.preventDefault();
        }}
        {...bind()}
      >
        <i />
      </div>
    </Tooltip>
  );
}

function AddPost({
  breakpoints,
  cursor,
  scale,
  keep,
}: {
  breakpoints: number[];
  cursor: number;
  scale: Scale;
  keep: (b: number[]) => void;
}) {
  const taken = breakpoints.includes(cursor) || cursor >= scale.widest;
  return (
    <Tooltip label={`A new span begins at ${cursor + 1} px; every width keeps what it has.`}>
      <button
        type="button"
        className={classes.add}
        disabled={taken}
        onClick={() => keep([...breakpoints, cursor].sort((a, b) => a - b))}
      >
        + post
      </button>
    </Tooltip>
  );
}

/** One strip: runs of widths with a verdict, each with its colour, its pattern and its word. */
function BandRow({ band, scale, budget, cursor }: { band: Band; scale: Scale; budget: number; cursor: number }) {
  if (band.kind === "weight") return <WeightRow band={band} scale={scale} budget={budget} />;
  const here = runAt(band, cursor);
  return (
    <div className={classes.band} role="img" aria-label={`${band.name}: ${describe(band)}`} data-here={here?.verdict}>
      {band.runs?.map((r) => (
        <i
          key={r.first}
          data-verdict={r.verdict}
          style={{
            left: scale.percent(r.first),
            width: `${(scale.at(Math.min(r.last + 1, scale.widest)) - scale.at(r.first)) * 100}%`,
          }}
          title={`${band.name}: ${r.verdict} from ${r.first} to ${r.last} px${r.worst < 1 ? `, at worst ${percent(r.worst)} at ${r.worst_at}` : ""}`}
        />
      ))}
    </div>
  );
}

const describe = (band: Band) => band.runs?.map((r) => `${r.verdict} ${r.first}–${r.last}`).join(", ") ?? "";

type Run = NonNullable<Band["runs"]>[number];

function WeightRow({ band, scale, budget }: { band: Band; scale: Scale; budget: number }) {
  const weighs = (r: Run) => valueAt(band.curve, r.first) ?? 0;
  const most = Math.max(budget * 1.15, ...(band.runs ?? []).map(weighs));
  const known = band.runs?.some((r) => r.verdict !== "unknown");
  return (
    <div
      className={classes.weight}
      role="img"
      aria-label={`${band.name}: ${known ? describe(band) : "known after an export"}`}
    >
      {!known && <em>known after an export</em>}
      {known && (
        <div
          className={classes.budget}
          style={{ bottom: `${(budget / most) * 100}%` }}
          title={`budget ${bytes(budget)}`}
        />
      )}
      {band.runs?.map(
        (r) =>
          r.verdict !== "unknown" && (
            <i
              key={r.first}
              data-verdict={r.verdict}
              style={{
                left: scale.percent(r.first),
                width: `${(scale.at(Math.min(r.last + 1, scale.widest)) - scale.at(r.first)) * 100}%`,
                height: `${(weighs(r) / most) * 100}%`,
                borderTopColor: r.verdict === "heavy" ? "var(--lost)" : spanColour("H"),
              }}
              title={`${bytes(weighs(r))} from ${r.first} to ${r.last} px, ${r.verdict}`}
            />
          ),
      )}
    </div>
  );
}
