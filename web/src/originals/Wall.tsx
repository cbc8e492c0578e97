/** The wall: only the rows that can be seen are drawn, however many pictures there are. */
import { Checkbox } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { type MouseEvent, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Original } from "../api/queries";
import { bytes, size } from "../ui/format";
import classes from "./Originals.module.css";
import { rowsOf } from "./rows";

const LEAST_HEIGHT = 170;
const GAP = 20;
/** What stands under each picture. */
const WORDS = 98;

interface Props {
  originals: Original[];
  widest: number;
  selected: ReadonlySet<number>;
  /** A press on a tick; with Shift all from the last one. */
  tick: (id: number, through: boolean) => void;
  open: (id: number) => void;
}

export function Wall({ originals, widest, selected, tick, open }: Props) {
  const { ref, width: measured } = useElementSize();
  const width = measured || window.innerWidth - 40; // at first as wide as the page allows, so that nothing waits for measuring
  const box = useRef<HTMLDivElement>(null);
  const [top, setTop] = useState(0);
  useLayoutEffect(() => {
    if (box.current) setTop(box.current.offsetTop);
  }, []);
  const rows = useMemo(
    () => rowsOf(originals, (o) => o.width_px / o.height_px, width, LEAST_HEIGHT, GAP),
    [originals, width],
  );
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: (i) => (rows[i]?.height ?? LEAST_HEIGHT) + WORDS,
    overscan: 1,
    scrollMargin: top,
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: other rows have other heights
  useLayoutEffect(() => virtual.measure(), [rows]);
  return (
    <div ref={box}>
      <div
        ref={ref}
        className={classes.wall}
        style={{ height: virtual.getTotalSize() }}
        data-selecting={selected.size > 0 || undefined}
      >
        {virtual.getVirtualItems().map((v) => (
          <div
            key={v.key}
            className={classes.wallRow}
            style={{ transform: `translateY(${v.start - top}px)`, gap: GAP }}
          >
            {rows[v.index]?.cells.map(({ item: o, width: w }) => (
              <Card
                key={o.id}
                original={o}
                width={w}
                height={rows[v.index]?.height ?? LEAST_HEIGHT}
                widest={widest}
                selected={selected.has(o.id)}
                tick={tick}
                open={open}
              />
            ))}
          </div>
        ))}
      </div>
    </div>
  );
}

interface CardProps {
  original: Original;
  width: number;
  height: number;
  widest: number;
  selected: boolean;
  tick: Props["tick"];
  open: Props["open"];
}

function Card({ original: o, width, height, widest, selected, tick, open }: CardProps) {
  return (
    <div className={classes.cell} style={{ width }} data-selected={selected || undefined}>
      <Checkbox
        className={classes.tick}
        size="xs"
        aria-label={`Select ${o.name}`}
        checked={selected}
        onChange={() => undefined}
        onClick={(e: MouseEvent) => tick(o.id, e.shiftKey)}
      />
      <button type="button" className={classes.card} onClick={() => open(o.id)}>
        <span className={classes.picture} style={{ height }}>
          <img src={o.thumb} alt="" loading="lazy" />
        </span>
        <span className={classes.line}>
          <strong title={o.name}>{o.name}</strong>
          <span>{bytes(o.size_bytes)}</span>
        </span>
        <Enough of={o} widest={widest} />
        <span className={classes.line}>
          <span style={{ flexShrink: 0 }}>{size(o.width_px, o.height_px)}</span>
          <span className={classes.shrinks} title={`sharp to ${o.sharp_2x} px at 2x`}>
            sharp to {o.sharp_2x} at 2x
          </span>
        </span>
        <span className={classes.line}>
          <span title={[...o.used_in, ...o.tags.map((t) => `#${t}`)].join("; ")}>
            {o.used_in?.length ? o.used_in[0] : "not used"}
          </span>
          <AltState of={o} />
        </span>
      </button>
    </div>
  );
}

/** A horizon in small: dark up to the widest frame that it fills sharply at 2x, light at 1x. */
export function Enough({ of, widest }: { of: Original; widest: number }) {
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
  if (of.alt === null || of.alt === undefined)
    return <b className={classes.missing}>no alt text</b>;
  return <span>{of.alt === "" ? "decorative" : "alt ✓"}</span>;
}
