/** Panes: live first screens, all equally tall, each tied to its width on the horizon. */
import { useElementSize, useMergedRef } from "@mantine/hooks";
import { type RefObject, useState } from "react";
import { later } from "../../ui/later";
import { useDropTarget } from "../../ui/useDropTarget";
import { useDesk } from "../context";
import { spanAt } from "../scale";
import { Told } from "../Told";
import { PaneFrame } from "./PaneFrame";
import { type PaneSpec, paneHeight, panesOf, placed, TEXT_WIDTH, tallest } from "./panes";
import classes from "./Sky.module.css";
import { Verdict } from "./Verdict";
import { Weather } from "./Weather";

const LargePane = later(
  () => import("./LargePane").then((m) => m.LargePane),
  () => null,
);

/** What stands above and below panes: label, verdict and ties; of low ones only ties. */
const AROUND = 78;
const AROUND_LOW = 30;
const LOW_SKY = 124;
/** What a column takes that says what the page is seen under: in a low sky there are two. */
const WEATHER = 96;
const NARROW = 640;

interface Props {
  deck: RefObject<HTMLElement | null>;
  isLow: boolean;
}

export function Sky({ deck, isLow }: Props) {
  const {
    reading,
    scale,
    cursor,
    setCursor,
    density,
    scrollbar,
    conditions,
    site,
    bringing,
    choosePart,
  } = useDesk();
  const { ref, width, height } = useElementSize();
  const [large, setLarge] = useState<PaneSpec>();
  const specs = panesOf(reading, scale, cursor);
  const around = isLow ? AROUND_LOW : AROUND;
  // what the page is seen under stands beside the panes, or on a narrow screen below them
  const weather = isLow ? 2 * WEATHER : WEATHER;
  const room = width > NARROW ? width - weather : width;
  const tall = paneHeight(specs, room, height - around, isLow);
  const { panes, scrolls } = placed(specs, tall, room, isLow ? TEXT_WIDTH : 0);
  // the axis begins after the column of band names
  const axisX = (w: number) => 140 + scale.at(w) * (width - 160);
  return (
    <section
      className={classes.sky}
      aria-label="Sky: what visitors see"
      ref={useMergedRef(ref, deck)}
      data-low={isLow || undefined}
      style={{ height: isLow ? LOW_SKY : width ? tallest(specs, room) + around : "100%" }}
    >
      {width > 0 &&
        panes.map((p) => (
          <div
            key={p.follows ? "cursor" : p.width}
            className={classes.pane}
            data-follows={p.follows || undefined}
            style={{ left: p.x, width: p.w }}
          >
            <div className={classes.label}>
              <strong>{p.width}</strong> × {p.height}
            </div>
            <PaneView
              onPress={(at) => {
                setCursor(p.width);
                if (at !== undefined && reading.items) choosePart(at);
              }}
              onLarge={() => setLarge(p)}
              onFiles={(files) => {
                const span = spanAt(reading.spans, p.width);
                if (span) bringing.bring(span.letter, files);
              }}
              label={`Pane ${p.width} × ${p.height}. Enter opens it large.`}
              height={tall}
            >
              <PaneFrame
                reading={reading}
                site={site.name}
                width={p.width}
                height={p.height}
                scale={tall / p.height}
                scrollbar={scrollbar}
                conditions={conditions}
              />
            </PaneView>
            <Told moves>
              <Verdict reading={reading} width={p.width} density={density} />
            </Told>
          </div>
        ))}
      <Weather />
      <svg className={classes.ties} width={width} height="24" aria-hidden="true">
        {(scrolls ? [] : panes).map((p) => (
          <path
            key={p.follows ? "cursor" : p.width}
            data-follows={p.follows || undefined}
            d={`M${p.x + p.w / 2} 0 V7 L${axisX(p.width)} 17 V24`}
          />
        ))}
      </svg>
      {large && (
        <LargePane
          reading={reading}
          site={site.name}
          width={large.width}
          height={large.height}
          scrollbar={scrollbar}
          conditions={conditions}
          close={() => setLarge(undefined)}
        />
      )}
    </section>
  );
}

/**
 * Which of the pictures in a pane lies at a point of the screen; undefined where there is only one,
 * or none.
 */
function pictureAt(view: Element, x: number, y: number): number | undefined {
  const frame = view.querySelector("iframe");
  const inside = frame?.contentDocument;
  if (!frame || !inside) return undefined;
  const box = frame.getBoundingClientRect();
  const scale = box.width / frame.clientWidth;
  const pictures = [...inside.querySelectorAll<HTMLElement>("picture[data-part]")];
  const found = pictures.find((picture) => {
    const r = picture.getBoundingClientRect();
    const [px, py] = [(x - box.left) / scale, (y - box.top) / scale];
    return r.left <= px && px <= r.right && r.top <= py && py <= r.bottom;
  });
  return found && Number(found.dataset.part);
}

interface ViewProps {
  /** With the place of the picture that was pressed, of many. */
  onPress: (at: number | undefined) => void;
  onLarge: () => void;
  onFiles: (files: File[]) => void;
  label: string;
  height: number;
  children: React.ReactNode;
}

/**
 * One pane's view: pressed it takes the cursor, opened it is large, and a picture may be dropped on
 * it.
 */
function PaneView({ onPress, onLarge, onFiles, label, height, children }: ViewProps) {
  const drop = useDropTarget(onFiles);
  return (
    <button
      type="button"
      className={classes.view}
      style={{ height }}
      onClick={(e) => onPress(pictureAt(e.currentTarget, e.clientX, e.clientY))}
      onDoubleClick={onLarge}
      onKeyDown={(e) => {
        if (e.key !== "Enter") return;
        e.preventDefault();
        onLarge();
      }}
      {...drop}
      aria-label={label}
    >
      {children}
    </button>
  );
}
