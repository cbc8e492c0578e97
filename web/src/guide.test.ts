import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, it } from "vitest";

const SRC = join(__dirname);
const files = readdirSync(SRC, { recursive: true, encoding: "utf8" }).filter((f) =>
  /(?<!\.test)\.tsx?$/.test(f),
);
const said = files.map((f) => readFileSync(join(SRC, f), "utf8").replace(/\s+/g, " ")).join("\n");

/**
 * What a document prints in bold is what stands on the screen; `A → B` are two of them, one after
 * the other.
 */
const named = (document: string) =>
  [...readFileSync(join(SRC, "../..", document), "utf8").matchAll(/\*\*([^*]+)\*\*/g)].flatMap(
    ([, name]) => (name as string).split(" → "),
  );

describe("what the documents call by its name", () => {
  for (const document of ["docs/guide.md", "README.md"])
    it(`is on the screen under that name: ${document}`, () => {
      const missing = named(document).filter((name) => !said.includes(name));
      expect(missing).toEqual([]);
    });
});
