/** Panes: live first screens, all equally tall, each tied to its width on the horizon. */
import { Modal } from "@mantine/core";
import { useElementSize } from "@mantine/hooks";
import { useState } from "react";
import type { Reading } from "../../api/queries";
import { heightAt, runAt, type Scale, spanAt, valueAt } from "../scale";
import type { DeskState } from "../types";
import { PaneFrame } from "./PaneFrame";
import classes from "./Sky.module.css";

const WIDTHS = [360, 768, 1280, 1920];
const GAP = 16;
const SIDE = 20;
/** Panes lower than this say nothing; on a narrow screen they scroll sideways instead. */
const LEAST_HEIGHT = 140;

export interface PaneSpec {
  width: number;
  height: number;
  follows: boolean;
}

/** The fixed panes inside the site's range and the one at the cursor, from the narrowest. */
export function panesOf(reading: Reading, scale: Scale, cursor: number): PaneSpec[] {
  const fixed = WIDTHS.filter((w) => w >= scale.narrowest && w <= scale.widest).map((width) => ({
    width,
    height: heightAt(reading, width),
    follows: false,
  }));
  const moving = { width: cursor, height: heightAt(reading, cursor), follows: true };
  const before = fixed.filter((p) => p.width <= cursor);
  return [...before, moving, ...fixed.filter((p) => p.width > cursor)];
}

/** How tall panes may be: the moving one is given room in steps, so that the others keep their size while it moves. */
export function paneHeight(panes: PaneSpec[], width: number, height: number): number {
  const ratios = panes.map((p) => {
    const r = p.width / p.height;
    return p.follows ? (r <= 1 ? 1 : r <= 2 ? 2 : 2.4) : r;
  });
  const room = width - 2 * SIDE - GAP * (panes.length - 1);
  return Math.max(LEAST_HEIGHT, Math.min(height, room / ratios.reduce((a, b) => a + b, 0)));
}

export function Sky({ state }: { state: DeskState }) {
  const { reading, scale, cursor, setCursor } = state;
  const { ref, width, height } = useElementSize();
  const [large, setLarge] = useState<PaneSpec>();
  const panes = panesOf(reading, scale, cursor);
  const tall = paneHeight(panes, width, height - 78);
  const used = panes.reduce((sum, p) => sum + (tall * p.width) / p.height, 0);
  const gap = Math.max(GAP, Math.min(46, (width - 2 * SIDE - used) / Math.max(1, panes.length - 1)));
  const scrolls = used + gap * (panes.length - 1) + 2 * SIDE > width + 1;
  let x = SIDE;
  const placed = panes.map((p) => {
    const w = (tall * p.width) / p.height;
    const at = { ...p, x, w };
    x += w + gap;
    return at;
  });
  // the axis begins after the column of band names
  const axisX = (w: number) => 140 + scale.at(w) * (width - 160);
  return (
    <section className={classes.sky} aria-label="Sky: what visitors see" ref={ref}>
      {width > 0 &&
        placed.map((p) => (
          <div
            key={p.follows ? "cursor" : p.width}
            className={classes.pane}
            data-follows={p.follows || undefined}
            style={{ left: p.x, width: p.w }}
          >
            <div className={classes.label}>
              <strong>{p.width}</strong> × {p.height}
            </div>
            <button
              type="button"
              className={classes.view}
              style={{ height: tall }}
              onClick={() => setCursor(p.width)}
              onDoubleClick={() => setLarge(p)}
              onKeyDown={(e) => {
                if (e.key !== "Enter") return;
                e.preventDefault();
                setLarge(p);
              }}
              aria-label={`Pane ${p.width} × ${p.height}. Enter opens it large.`}
            >
              <PaneFrame
                reading={reading}
                site={state.site.name}
                width={p.width}
                height={p.height}
                scale={tall / p.height}
              />
            </button>
            <Verdict reading={reading} width={p.width} density={state.density} />
          </div>
        ))}
      <svg className={classes.ties} width={width} height="24" aria-hidden="true">
        {(scrolls ? [] : placed).map((p) => (
          <path
            key={p.follows ? "cursor" : p.width}
            data-follows={p.follows || undefined}
            d={`M${p.x + p.w / 2} 0 V7 L${axisX(p.width)} 17 V24`}
          />
        ))}
      </svg>
      <Modal
        opened={!!large}
        onClose={() => setLarge(undefined)}
        fullScreen
        title={large ? `${large.width} × ${large.height}, px for px` : ""}
      >
        {large && (
          <div className={classes.large}>
            <PaneFrame reading={reading} site={state.site.name} width={large.width} height={large.height} scale={1} />
          </div>
        )}
      </Modal>
    </section>
  );
}

/** How the picture fares at a width, in a word. Keep areas first; without any, sharpness. */
function Verdict({ reading, width, density }: { reading: Reading; width: number; density: number }) {
  const span = spanAt(reading.spans, width);
  const shows = span?.effective.show ?? "picture";
  if (shows !== "picture")
    return <div className={classes.verdict}>{shows === "colour" ? "only colour" : "not shown"}</div>;
  if (!span?.effective.original) return <div className={classes.verdict}>no picture yet</div>;
  const areas = reading.bands.filter((b) => b.kind === "area").flatMap((b) => runAt(b, width) ?? []);
  if (areas.length) {
    const whole = areas.filter((r) => r.verdict === "whole").length;
    const worst = areas.some((r) => r.verdict === "lost") ? "lost" : whole < areas.length ? "cut" : "whole";
    return (
      <div className={classes.verdict} data-verdict={worst}>
        {whole === areas.length ? "all whole" : `${whole} of ${areas.length} whole`}
      </div>
    );
  }
  const band = reading.bands.find((b) => b.kind === "sharp" && b.density === density);
  const run = band && runAt(band, width);
  return (
    <div className={classes.verdict} data-verdict={run?.verdict === "soft" ? "cut" : "whole"}>
      {run?.verdict === "soft" ? `soft, ${(valueAt(band?.curve, width) ?? run.worst).toFixed(2)}×` : "sharp"}
    </div>
  );
}
