/** Numbers as people read them. No rule of the job lives here. */

const THIN = "\u202f";

export function bytes(n: number): string {
  if (n < 1000) return `${n}${THIN}B`;
  if (n < 1_000_000) return `${Math.round(n / 1000)}${THIN}kB`;
  return `${(n / 1_000_000).toFixed(1)}${THIN}MB`;
}

/** What people call the formats of files. */
export const FORMATS = {
  avif: "AVIF",
  webp: "WebP",
  jpeg: "JPEG",
  png: "PNG",
  svg: "SVG",
} as const;

export const size = (w: number, h: number) => `${Math.round(w)} × ${Math.round(h)}`;

export const percent = (share: number) => `${Math.round(share * 100)}${THIN}%`;

export function range(first: number, last: number, widest?: number): string {
  return last === widest ? `from ${first}` : `${first}–${last}`;
}

export function plural(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** A number from what somebody typed; undefined when it is none. A decimal comma counts. */
export function typed(text: string): number | undefined {
  const value = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && Number.isFinite(value) ? value : undefined;
}

/** `4:5`, `4/5`, `2.4` or `2.4:1` as a ratio; undefined when it is none. */
export function typedRatio(text: string): { w: number; h: number } | undefined {
  const [a, b, ...rest] = text.split(/[:/×x]/);
  const w = typed(a ?? "");
  const h = b === undefined ? 1 : typed(b);
  return rest.length || w === undefined || h === undefined || w <= 0 || h <= 0
    ? undefined
    : { w, h };
}

/** How long something still takes, as one says it: rounded, since it is a guess. */
export function timeLeft(seconds: number): string {
  if (seconds < 5) return "a few seconds left";
  if (seconds < 55) return `about ${Math.ceil(seconds / 5) * 5} s left`;
  return `about ${plural(Math.round(seconds / 60), "minute")} left`;
}

/** Words in a row: `A, B and C`. */
export const enumerated = (words: readonly string[]) =>
  words.length < 2 ? words.join("") : `${words.slice(0, -1).join(", ")} and ${words.at(-1)}`;

export const capital = (text: string) => `${text.charAt(0).toUpperCase()}${text.slice(1)}`;
