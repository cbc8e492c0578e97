/** Words are read on the colours that lie under them (WCAG 2.2, 1.4.3). */
import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";

const SRC = join(import.meta.dirname, "..");
const sheets = readdirSync(SRC, { recursive: true, encoding: "utf8" })
  .filter((f) => f.endsWith(".css"))
  .map((f) => ({ file: f, text: readFileSync(join(SRC, f), "utf8") }));

/** Per selector of a sheet all that its rules declare. */
function declared(text: string): Map<string, string> {
  const found = new Map<string, string>();
  for (const [, selectors = "", body = ""] of text.matchAll(/([^{}]+)\{([^{}]*)\}/g))
    for (const selector of selectors.split(",").map((s) => s.trim()))
      found.set(selector, `${found.get(selector) ?? ""}${body}`);
  return found;
}

describe("the surround of pictures is too dark for soft ink (3.8 : 1)", () => {
  it("and no rule sets one on the other", () => {
    expect(sheets.length).toBeGreaterThan(20);
    const wrong = sheets.flatMap(({ file, text }) =>
      [...declared(text)]
        .filter(([, body]) => /background: var\(--surround\b/.test(body))
        .filter(([, body]) => /(^|[^-])color: var\(--ink-soft\)/.test(body))
        .map(([selector]) => `${file} ${selector}`),
    );
    expect(wrong).toEqual([]);
  });

  it("and what is set in soft ink in it is set in plain ink", () => {
    const grounds = sheets.flatMap(({ file, text }) =>
      [...declared(text)]
        .filter(([, body]) => /background: var\(--surround\b/.test(body))
        .map(([selector, body]) => ({ selector: `${file} ${selector}`, body })),
    );
    expect(grounds.length).toBeGreaterThan(8);
    const wrong = grounds.filter(({ body }) => !body.includes("--ink-soft: var(--ink)"));
    expect(wrong.map((g) => g.selector)).toEqual([]);
  });
});
