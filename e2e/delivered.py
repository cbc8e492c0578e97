"""A placement of made-up originals as it is delivered, on a shelf that a browser can fetch from."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np
from conftest import Shelf
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.layouts import begun
from skypane.markup.css import css_lines
from skypane.markup.fonts import fetched_first, font_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.markup.scripts import script_text, scripts_of
from skypane.shown.nouns import Plan
from skypane.shown.plan import plan
from skypane.words.faces import FACES

#: 40 widths, both ends of every span among them.
WIDTHS = sorted(
    {320, 599, 600, 1023, 1024, 1599, 1600, 2560} | set(np.geomspace(320, 2560, 33).astype(int))
)
#: A px, for files that are only asked for.
PX = bytes.fromhex(
    "89504e470d0a1a0a0000000d4948445200000001000000010806000000"
    "1f15c4890000000d49444154789c6360606060000000050001a5f64540"
    "0000000049454e44ae426082"
)


def made(
    kind: str,
    originals: Mapping[int, m.Original],
    layout: Mapping[str, dict[str, object]],
    items: Mapping[int, m.Item] | None = None,
    shown: Sequence[int] = (),
    **values: object,
) -> m.Placement:
    """A placement with a part per original, called *Nine*."""
    parts = tuple(
        m.Part(treatments={"D": m.Treatment(original=i)}, item=(items or {}).get(i))
        for i in shown or originals
    )
    found = begun(kind, m.Site(), m.Placement(name="Nine", parts=parts))
    return found.model_copy(update={"layout": layout, **values})


def put(
    shelf: Shelf,
    placement: m.Placement,
    originals: Mapping[int, m.Original],
    *,
    site: m.Site | None = None,
    below: str = "",
) -> tuple[Plan, str]:
    """The plan, and the address of its page; `below` is what stands under it."""
    found = plan(site or m.Site(), placement, originals)
    css = text_of((*font_lines([found]), *css_lines(found, renditions(found))))
    snippets = [text_of(placement_lines(found, renditions(found))), below]
    scripts = scripts_of([found])
    html = page_html("Nine", snippets, scripts=scripts, fonts=fetched_first([found]))
    shelf.put("/picture.css", css, "text/css")
    for name in scripts:
        shelf.put(f"/{name}", script_text(name), "text/javascript")
    for file in (f for face in FACES.values() for f in face.files):
        shelf.put(f"/fonts/{file.name}", file.path.read_bytes(), "font/woff2")
    shelf.fallback = (PX, "image/png")
    return found, shelf.put("/nine.html", html, "text/html")


BOXES = """() => {
  const box = document.querySelector('.nine').getBoundingClientRect();
  return [...document.querySelectorAll('.nine picture')].map((e) => {
    const r = e.getBoundingClientRect();
    return [r.left - box.left, r.top - box.top, r.width, r.height];
  });
}"""


def span_at(found: Plan, part: int, width: int):
    """A part in the span of a width, and the width's place in it."""
    p = next(p for p in found.parts[part].spans if p.span.first <= width <= p.span.last)
    return p, width - p.span.first
