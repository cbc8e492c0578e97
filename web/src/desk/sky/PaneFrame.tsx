/**
 * One first screen in a frame of its own, so that viewport units and media queries mean the pane's
 * viewport.
 */
import { memo, useEffect, useRef } from "react";
import type { Reading } from "../../api/queries";
import type { Conditions } from "../conditions";
import { guidesCss, useGuides } from "../guides";
import { begin, RESTING } from "../kinds/kinds";
import { spanAt } from "../scale";

const SCAFFOLD = `
  body { margin: 0; font: 16px/1.5 sans-serif; }
  #head { box-sizing: border-box; height: 60px; padding: 18px 20px; font-weight: 700; }
  #text { box-sizing: border-box; max-width: 1080px; margin: 0 auto; padding: 28px 20px; }
  #text i { display: block; height: 13px; margin: 0 0 15px; border-radius: 3px; background: currentColor; opacity: .12; }
  #text i:first-child { width: 45%; height: 22px; opacity: .3; }
  #text i:nth-child(4) { width: 70%; }
  .waits { position: absolute; inset: 0; display: grid; place-items: center; color: #4d5756; font-weight: 600;
    font-size: max(16px, 1.6vw); box-shadow: inset 0 0 0 2px #aab2b3; }
`;

/** Addresses of previews that a picture asks for; one that none is to be had from, and of nothing. */
const PREVIEW = /(?<= (?:src|srcset)=")\/api\/originals\/[^"\s]+/g;
const NOT_THERE = "data:image/png;base64,AAAA";
const NOTHING = "data:image/svg+xml,%3Csvg%20xmlns=%22http://www.w3.org/2000/svg%22/%3E";

/** Markup as a page has it while its pictures are under way, or once they have not come. */
function without(markup: string, pictures: Conditions["pictures"]) {
  if (pictures === "here") return markup;
  if (pictures === "coming") return markup.replaceAll(PREVIEW, NOTHING);
  // what is shown instead is put there as the script does that goes with the markup
  return markup.replaceAll(/<picture[\s\S]*?<\/picture>/g, (one) => {
    const instead = / data-instead="([^"]*)"/.exec(one)?.[1];
    return one.replaceAll(PREVIEW, instead ?? NOT_THERE);
  });
}

const escapeText = (text: string) => text.replace(/[&<>]/g, (c) => `&#${c.charCodeAt(0)};`);

const page = (
  site: string,
) => `<!doctype html><html lang="en"><head><title>Pane</title><style>${SCAFFOLD}</style><style id="css"></style><style id="guides"></style></head>
<body><div id="head">${escapeText(site)}</div><div id="spot"></div><div id="text"><i></i><i></i><i></i><i></i><i></i><i></i></div></body></html>`;

/** When every picture that the markup may ask for is here, or cannot be had. */
function fetched(markup: string): Promise<unknown> {
  const urls = [...markup.matchAll(/(?:src|srcset)="(\/api\/[^"]+)"/g)].map((m) =>
    (m[1] as string).replaceAll("&amp;", "&"),
  );
  return Promise.all(
    [...new Set(urls)].map((url) => {
      const image = new Image();
      image.src = url;
      return image.decode().catch(() => undefined);
    }),
  );
}

/** Frames that wait for their picture in this span say how large they are. */
function tellSizes(spot: Element, letter: string | undefined) {
  for (const frame of spot.querySelectorAll("picture")) {
    const waits = !!letter && !!frame.dataset.waits?.split(" ").includes(letter);
    const label = frame.querySelector(".waits");
    if (!waits) {
      label?.remove();
      continue;
    }
    const said = label ?? frame.appendChild(frame.ownerDocument.createElement("span"));
    said.className = "waits";
    said.textContent = `${Math.round(frame.clientWidth)} × ${Math.round(frame.clientHeight)}`;
  }
}

/** Of many pictures the one that is worked on is ringed. */
function ring(spot: Element, chosen: number | undefined) {
  for (const picture of spot.querySelectorAll<HTMLElement>("picture"))
    picture.toggleAttribute(
      "data-chosen",
      chosen !== undefined && picture.dataset.part === String(chosen),
    );
}

/** A bar of its own always there, since those of phones and of headless browsers take no room. */
const withScrollbar = (px: number) =>
  `html { overflow-y: scroll; } html::-webkit-scrollbar { width: ${px}px; background: #e6e6e6; }
   html::-webkit-scrollbar-thumb { background: #b4b8b9; border: 3px solid #e6e6e6; border-radius: ${px}px; }`;

export interface PaneFrameProps {
  reading: Reading;
  site: string;
  width: number;
  height: number;
  scale: number;
  /** What a classic scrollbar takes of the page, in CSS px. */
  scrollbar: number;
  conditions: Conditions;
}

export const PaneFrame = memo(function PaneFrame({
  reading,
  site,
  width,
  height,
  scale,
  scrollbar,
  conditions,
}: PaneFrameProps) {
  const frame = useRef<HTMLIFrameElement>(null);
  const { css, called, colours } = reading.pane;
  const { markup: asked } = reading.pane;
  const markup = without(asked, conditions.pictures);
  const letter = spanAt(reading.spans, width)?.letter;
  const shown = useRef({ css: "", markup: "" });
  const slid = useRef<number>(undefined);
  const guides = useGuides();
  const chosen = reading.items ? reading.part : undefined;
  const overlay = `${guidesCss(guides, called, 1 / scale)}
    picture[data-chosen] { outline: ${2.5 / scale}px solid #0b4f5c; outline-offset: ${1 / scale}px; }
    [data-slideshow] picture[data-chosen] { outline-offset: ${-2.5 / scale}px; }
    body { background: ${colours.ground}; color: ${colours.ink}; }
    ${guides.moving && !conditions.still ? "" : RESTING}
    ${scrollbar ? withScrollbar(scrollbar) : ""}`;

  const fill = () => {
    const inside = frame.current?.contentDocument;
    const style = inside?.getElementById("css");
    const spot = inside?.getElementById("spot");
    if (!style || !spot) return;
    if (shown.current.css !== css) style.textContent = css;
    const isNew = shown.current.markup !== markup;
    if (isNew) spot.innerHTML = markup;
    shown.current = { css, markup };
    const over = inside?.getElementById("guides");
    if (over && over.textContent !== overlay) over.textContent = overlay;
    tellSizes(spot, letter);
    ring(spot, chosen);
    begin(spot, guides.moving && !isNew && chosen === slid.current ? undefined : chosen);
    slid.current = chosen;
  };
  // a picture that is not here yet is fetched first, so that the pane never goes blank between two
  // crops
  // biome-ignore lint/correctness/useExhaustiveDependencies: filled anew when what it shows has changed
  useEffect(() => {
    let latest = true;
    if (!shown.current.markup || shown.current.markup === markup) fill();
    else
      fetched(markup).then(() => {
        if (latest) fill();
      });
    return () => {
      latest = false;
    };
  }, [css, markup, letter, width, overlay, chosen]);

  return (
    <iframe
      ref={frame}
      title={`First screen at ${width} px`}
      sandbox="allow-same-origin"
      srcDoc={page(site)}
      tabIndex={-1}
      onLoad={() => {
        shown.current = { css: "", markup: "" };
        fill();
      }}
      style={{
        width,
        height,
        transform: `scale(${scale})`,
        transformOrigin: "0 0",
        border: 0,
        pointerEvents: "none",
      }}
    />
  );
});
