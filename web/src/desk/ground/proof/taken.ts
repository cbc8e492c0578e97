/**
 * What this browser took of the delivered page: read from `currentSrc`, in a frame of the wanted
 * width.
 */
import { useEffect, useState } from "react";
import type { Schemas } from "../../../api/client";

export type Formats = NonNullable<Schemas["Case"]["formats"]>;

export interface Taken {
  /** As the markup writes it, null when nothing was loaded. */
  url: string | null;
  width?: number;
  failure?: string;
}

const until = (test: () => boolean, ms: number) =>
  new Promise<boolean>((resolve) => {
    const began = performance.now();
    const look = () => {
      if (test()) resolve(true);
      else if (performance.now() - began > ms) resolve(false);
      else setTimeout(look, 25);
    };
    look();
  });

/** What of the page shows the part: the class of its element, and whether as its background. */
export interface Element {
  element: string;
  background: boolean;
}

/** The page of a delivery whose files lie beside it, or the one that asks an image service. */
export const pageOf = (service: boolean) => (service ? "page-service.html" : "page.html");

/** Waits for one of the page's pictures and tells which file it is. */
export async function readFrame(frame: HTMLIFrameElement, of: Element): Promise<Taken> {
  const page = frame.contentDocument;
  const shown = page?.querySelector(`.${CSS.escape(of.element)}`);
  if (!shown) return { url: null, failure: "no picture on the page" };
  if (of.background) return readBackground(frame, shown);
  const img = (
    shown.matches("img") ? shown : shown.querySelector("img")
  ) as HTMLImageElement | null;
  if (!img) return { url: null, failure: "no picture on the page" };
  if (img.loading === "lazy") img.loading = "eager"; // the pick is the same; only the waiting is not
  await until(() => img.complete && img.currentSrc !== "", 15000);
  const url = img.currentSrc ? asWritten(img.currentSrc, page as Document) : null;
  if (img.naturalWidth === 0) return { url, failure: "the file did not load" };
  const file = await imageWidth(img.currentSrc);
  return { url, width: file };
}

/**
 * The file that the style sheet asked for: what `image-set()` chooses is told nowhere, but what was
 * fetched is.
 */
async function readBackground(frame: HTMLIFrameElement, shown: globalThis.Element): Promise<Taken> {
  const page = frame.contentWindow as Window & typeof globalThis;
  const { performance, document } = page;
  const hasFile = () => page.getComputedStyle(shown, "::before").backgroundImage !== "none";
  if (shown.getClientRects().length === 0 || !hasFile()) return { url: null };
  await until(() => fetchedBy(performance, document).length > 0, 15000);
  const fetched = fetchedBy(performance, document);
  const url = fetched.at(-1) ?? null;
  if (fetched.length > 1) return { url, failure: `${fetched.length} files were fetched` };
  return url
    ? { url, width: await imageWidth(new URL(url, document.baseURI).href) }
    : { url, failure: "no file was fetched" };
}

function fetchedBy(performance: Performance, document: Document): string[] {
  return (
    performance
      .getEntriesByType("resource")
      // of a file that is asked for early its link is told of
      .filter((e) => ["css", "link"].includes((e as PerformanceResourceTiming).initiatorType))
      .map((e) => asWritten(e.name, document))
      .filter((name) => !name.startsWith("fonts/") && !name.endsWith(".css"))
  );
}

/** An address as a page writes it: from its folder, or from the root of its host. */
function asWritten(url: string, page: Document): string {
  const folder = page.baseURI.replace(/[^/]*$/, "");
  if (url.startsWith(folder)) return url.slice(folder.length);
  const { origin } = new URL(page.baseURI);
  return url.startsWith(`${origin}/`) ? url.slice(origin.length) : url;
}

/** The file's own px, which naturalWidth divides by the density. */
async function imageWidth(src: string): Promise<number | undefined> {
  const probe = new Image();
  probe.src = src;
  await probe.decode().catch(() => undefined);
  return probe.naturalWidth || undefined;
}

/** The pick at a viewport, in a hidden frame that is thrown away. */
export async function takenBy(
  delivery: number,
  width: number,
  height: number,
  of: Element,
  page: string,
): Promise<Taken> {
  const frame = document.createElement("iframe");
  Object.assign(frame.style, {
    position: "fixed",
    left: "-10000px",
    top: "0",
    border: "0",
    width: `${width}px`,
    height: `${height}px`,
  });
  frame.title = "A try at another width";
  const attempt = `try-${width}-${Math.random().toString(36).slice(2)}`;
  const loaded = new Promise((resolve) => {
    frame.onload = resolve;
  });
  frame.src = `/api/deliveries/${delivery}/tree/${attempt}/${page}`;
  document.body.append(frame);
  await loaded;
  const taken = await readFrame(frame, of);
  frame.remove();
  return taken;
}

const TINY = {
  // one px each, made with libvips
  avif: "data:image/avif;base64,AAAAHGZ0eXBhdmlmAAAAAG1pZjFhdmlmbWlhZgAAANZtZXRhAAAAAAAAACFoZGxyAAAAAAAAAABwaWN0AAAAAAAAAAAAAAAAAAAAACJpbG9jAAAAAERAAAEAAQAAAAAA+gABAAAAAAAAAB8AAAAjaWluZgAAAAAAAQAAABVpbmZlAgAAAAABAABhdjAxAAAAAA5waXRtAAAAAAABAAAAVmlwcnAAAAA4aXBjbwAAAAxhdjFDgQAMAAAAABRpc3BlAAAAAAAAAAEAAAABAAAAEHBpeGkAAAAAAwgICAAAABZpcG1hAAAAAAAAAAEAAQOBAgMAAAAnbWRhdBIACggYAAaICGg0IDIRGUeHhiGAAGgAAJBAzpe3XRI=",
  webp: "data:image/webp;base64,UklGRiQAAABXRUJQVlA4IBgAAAAwAQCdASoBAAEAAsBMJaQAA3AA/vgfgAA=",
};

const decodes = (src: string) =>
  new Promise<boolean>((resolve) => {
    const img = new Image();
    img.onload = () => resolve(img.naturalWidth > 0);
    img.onerror = () => resolve(false);
    img.src = src;
  });

/** Which of our formats this browser can show, found out by showing them. */
export function useBrowserFormats(): NonNullable<Schemas["Case"]["formats"]> {
  const [formats, setFormats] = useState<NonNullable<Schemas["Case"]["formats"]>>("all");
  useEffect(() => {
    Promise.all([decodes(TINY.avif), decodes(TINY.webp)]).then(([avif, webp]) =>
      setFormats(avif ? "all" : webp ? "webp" : "jpeg"),
    );
  }, []);
  return formats;
}

/** So much of an address is read at a glance. */
const MOST_SIGNS = 44;

/**
 * A file's address without the folder of all files; at a service the file and how what is asked of
 * it begins.
 */
export function short(url: string | null | undefined): string {
  if (url == null) return "nothing";
  if (!url.includes("?")) return url.replace(/^images\//, "");
  const file = decodeURIComponent(url.slice(url.lastIndexOf("/", url.indexOf("?")) + 1));
  return file.length > MOST_SIGNS ? `${file.slice(0, MOST_SIGNS)}…` : file;
}

/** What a browser took, in words. */
export const said = (taken: Taken) =>
  taken.url === null ? (taken.failure ?? "nothing") : short(taken.url);
