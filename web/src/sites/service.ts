/** Templates of addresses (RFC 6570) in the form: whether one is right is said by the server. */
import type { SitePlan } from "../api/queries";

type Service = NonNullable<SitePlan["hand_over"]["service"]>;
export type Meaning = NonNullable<Service["means"]>[string];

/** What a variable can stand for, in words. */
export const MEANINGS: { value: Meaning; label: string }[] = [
  { value: "name", label: "the original's name" },
  { value: "hash", label: "the original's hash" },
  { value: "width", label: "width in px" },
  { value: "height", label: "height in px" },
  { value: "format", label: "format" },
  { value: "quality", label: "quality" },
  { value: "crop_x", label: "where the cut begins, across" },
  { value: "crop_y", label: "where the cut begins, down" },
  { value: "crop_width", label: "width of the cut" },
  { value: "crop_height", label: "height of the cut" },
  { value: "focal_x", label: "focal point, across" },
  { value: "focal_y", label: "focal point, down" },
  { value: "expires", label: "until when it holds" },
  { value: "key", label: "name of the key" },
  { value: "signature", label: "signature" },
];

/** The variables of a template, each once; of one that is being typed those that are whole. */
export function variablesIn(template: string): string[] {
  const inner = [...template.matchAll(/\{[+#./;?&]?([^{}]+)\}/g)].map((m) => m[1] as string);
  const names = inner.flatMap((each) => each.split(","));
  return [...new Set(names.map((name) => name.replace(/(:\d+|\*)$/, "").trim()).filter(Boolean))];
}
