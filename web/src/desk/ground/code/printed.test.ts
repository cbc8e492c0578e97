/** What is printed as JSX, once React has rendered it, is what is printed as HTML. */
import { readFileSync } from "node:fs";
import { join } from "node:path";
import * as React from "react";
import { renderToStaticMarkup } from "react-dom/server";
import { transformWithOxc } from "vite";
import { expect, it } from "vitest";

const PRINTED = join(import.meta.dirname, "../../../../../core/tests/markup/printed");
const read = (name: string) => readFileSync(join(PRINTED, name), "utf8");

/** Elements and texts of some HTML, without the room between lines of code. */
function tree(html: string): unknown {
  const of = (node: Node): unknown => {
    if (!(node instanceof Element)) return node.textContent?.trim() || null;
    const said = Object.fromEntries(
      [...node.attributes].map((a) => [a.name, a.value.replace(/\s+/g, " ")]),
    );
    return [node.tagName, said, [...node.childNodes].map(of).filter((n) => n !== null)];
  };
  return [...new DOMParser().parseFromString(html, "text/html").body.childNodes]
    .map(of)
    .filter((n) => n !== null);
}

it("a slideshow, and text that means something in JSX", async () => {
  const { code } = await transformWithOxc(`export default (${read("slides.jsx")})`, "slides.jsx", {
    jsx: { runtime: "classic" },
  });
  const made = new Function("React", code.replace("export default", "return")) as (
    react: typeof React,
  ) => never;
  const rendered = tree(renderToStaticMarkup(made(React)));
  expect(rendered).toEqual(tree(read("slides.html")));
  expect(JSON.stringify(rendered)).toContain("{fish} & <chips>");
});

it("a component, whose classes are those of its CSS module", async () => {
  const { code } = await transformWithOxc(read("component.tsx"), "component.tsx", {
    jsx: { runtime: "classic" },
  });
  const plain = code.replace(/^import .*$/gm, "").replace("export function", "return function");
  // a module may call its classes whatever it likes: here as they are called outside of it
  const styles = new Proxy({}, { get: (_, name) => name });
  const SixViews = new Function("React", "styles", plain)(
    React,
    styles,
  ) as () => React.ReactElement;
  expect(tree(renderToStaticMarkup(SixViews()))).toEqual(
    tree(read("../../delivered/every-kind/snippets/six-views.html")),
  );
});
