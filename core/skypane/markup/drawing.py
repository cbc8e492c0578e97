"""A drawing that stands in the page itself (HTML Standard §4.8.17; SVG Accessibility API Mappings
for `role` and name)."""

from __future__ import annotations

from skypane.files.drawn import Node, renamed
from skypane.files.inline import Inline
from skypane.markup.elements import Element, element


def drawing_element(of: Inline, called: str, alt: str, **said: str | None) -> Element:
    """The frame with the drawing in it; without alt text it is passed over by those who do not see
    it."""
    root = renamed(of.drawn.root, called)
    own = {k: v for k, v in root.attributes if k not in ("width", "height", "role", "id")}
    told = {"role": "img", "aria-label": alt} if alt else {"aria-hidden": "true"}
    svg = element(
        "svg",
        {**told, **own, "preserveAspectRatio": of.lies},
        [_element(c) if isinstance(c, Node) else c for c in root.children],
        on_a_line=True,
    )
    return element("span", {"class": called, **said}, [svg])


def _element(of: Node) -> Element:
    inner = [_element(c) if isinstance(c, Node) else c for c in of.children]
    return element(of.tag, dict(of.attributes), inner, on_a_line=True)
