/**
 * A whole page at one width, from its top to its end, with the fold where the first screen ends.
 */
import { useCallback, useEffect, useRef, useState } from "react";
import type { PageReading } from "../api/pages";
import { begin, RESTING } from "../desk/kinds/kinds";
import classes from "./Pages.module.css";

const PAGE = `<!doctype html><html lang="en"><head><title>Page</title><style>
  body { margin: 0; font: 16px/1.5 sans-serif; }
  .page-head { background: rgb(29 58 68 / 80%); }
  ${RESTING}
</style><style id="css"></style></head><body id="spot"></body></html>`;

/** How high the line over a pane is. */
const FIGURES_PX = 20;

interface Props {
  reading: PageReading;
  width: number;
  /** How high the screen is there. */
  height: number;
  /** How wide it is drawn, in px. */
  drawn: number;
  follows?: boolean;
  press: () => void;
}

export function LongPane({ reading, width, height, drawn, follows, press }: Props) {
  const frame = useRef<HTMLIFrameElement>(null);
  const shown = useRef<{ spot?: Element; css?: string; markup?: string }>({});
  const [long, setLong] = useState(height);
  const [over, setOver] = useState(0);
  const scale = drawn / width;
  const { css: own, markup, colours } = reading.pane;
  const css = `${own} body { background: ${colours.ground}; color: ${colours.ink}; }`;
  const fill = useCallback(() => {
    const inside = frame.current?.contentDocument;
    const style = inside?.getElementById("css");
    const spot = inside?.getElementById("spot");
    if (!inside || !style || !spot) return;
    const before = shown.current;
    if (before.spot !== spot || before.css !== css) style.textContent = css;
    if (before.spot !== spot || before.markup !== markup) {
      spot.innerHTML = markup;
      begin(spot);
    }
    shown.current = { spot, css, markup };
    setLong(Math.max(height, spot.scrollHeight));
    setOver(Math.max(0, inside.documentElement.scrollWidth - width));
  }, [css, markup, width, height]);
  useEffect(() => {
    fill();
    // typefaces and pictures come later
    const timer = setInterval(fill, 700);
    return () => clearInterval(timer);
  }, [fill]);
  return (
    <figure className={classes.pane} style={{ width: drawn }} data-follows={follows || undefined}>
      <figcaption>
        <strong>{width}</strong> × {height}
        {over > 0 && <span className={classes.over}>scrolls sideways, {Math.round(over)} px</span>}
      </figcaption>
      <button
        type="button"
        className={classes.view}
        style={{ height: long * scale }}
        aria-label={`The page at ${width} px, ${Math.round(long)} px long`}
        onClick={press}
      >
        <iframe
          ref={frame}
          title={`The page at ${width} px`}
          sandbox="allow-same-origin"
          srcDoc={PAGE}
          tabIndex={-1}
          onLoad={fill}
          style={{ width, height: long, transform: `scale(${scale})`, transformOrigin: "0 0" }}
        />
      </button>
      <span className={classes.fold} style={{ top: FIGURES_PX + height * scale }}>
        <b>fold, {height} px</b>
      </span>
    </figure>
  );
}
