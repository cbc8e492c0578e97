import { useState } from "react";
import { client, dataAs, ProblemError } from "../../../api/client";
import type { SpanReading } from "../../../api/queries";

export type WidthRule = SpanReading["effective"]["width"];
export type HeightRule = SpanReading["effective"]["height"];

/** A width rule of another kind, as it begins in the place of the one that holds. */
export const firstWidth = (kind: string, rule: WidthRule) =>
  dataAs<WidthRule>(
    client.POST("/api/width-rules/{kind}", { params: { path: { kind } }, body: { rule } }),
  );

/** A height rule of another kind; `now` is the height in px that it has now. */
export const firstHeight = (kind: string, rule: HeightRule, now: number) =>
  dataAs<HeightRule>(
    client.POST("/api/height-rules/{kind}", {
      params: { path: { kind } },
      body: { rule, now_px: now },
    }),
  );

/** Asks for a rule of another kind and sets it; `refused` says why it could not be had. */
export function useSwitch<Rule>(first: (kind: string) => Promise<Rule>, set: (rule: Rule) => void) {
  const [refused, setRefused] = useState<string>();
  const to = async (kind: string) => {
    setRefused(undefined);
    try {
      set(await first(kind));
    } catch (e) {
      setRefused(e instanceof ProblemError ? e.message : "No answer. Try again.");
    }
  };
  return { to, refused };
}
