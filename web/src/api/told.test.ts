/**
 * What the server refuses is read by somebody: whoever makes a change shows what came back of it.
 */
import { describe, expect, it } from "vitest";

const sources = import.meta.glob("../**/*.{ts,tsx}", {
  query: "?raw",
  import: "default",
  eager: true,
}) as Record<string, string>;

/** Hooks that change something on the server: whatever is made of a mutation. */
const changes = Object.entries(sources)
  .filter(([path]) => !path.includes(".test."))
  .flatMap(([, text]) => [
    ...text.matchAll(
      /export (?:const|function) (use\w+)[^;]*?(?:useChange|usePeopleChange|useMutation)\b/g,
    ),
  ])
  .map((m) => m[1] as string);

/** Where an error is shown, or where the change is waited for and caught. */
const shown = (name: string) =>
  new RegExp(
    `\\b${name}\\.(?:error|failed)|\\b${name}\\.mutateAsync\\(|mutateAsync \\} = ${name}\\b`,
  );

describe("changes on the server", () => {
  it("are known", () => {
    expect(changes).toContain("useRemoveSite");
    expect(changes).toContain("useInvite");
    expect(changes.length).toBeGreaterThan(20);
  });
  it("tell why they were refused wherever they are made", () => {
    const silent = Object.entries(sources).flatMap(([path, text]) =>
      [...text.matchAll(/const (\w+) = (use\w+)\(/g)]
        .filter(
          ([, name, hook]) => changes.includes(hook as string) && !shown(name as string).test(text),
        )
        .map(([, name, hook]) => `${path}: ${name} = ${hook}`),
    );
    expect(silent).toEqual([]);
  });
});
