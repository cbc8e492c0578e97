"""The markup of an `img` or `picture`, read once and picked from many times."""

from __future__ import annotations

import re
from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from itertools import islice
from typing import Any

from selectolax.lexbor import LexborHTMLParser

from skypane.errors import InvalidPlan
from skypane.picks.parting import Texts, parting, sizes_part
from skypane.picks.sizes import is_auto


@dataclass(frozen=True)
class Source:
    """A `source` before the img, its attributes as they are written."""

    label: str
    srcset: str | None
    media: str | None
    type: str | None
    sizes: str | None
    has_sizes: bool
    sizes_part: bool


@dataclass(frozen=True)
class Markup:
    """An `img` with the sources before it, read once and picked from many times."""

    sources: tuple[Source, ...]
    srcset: str | None
    src: str
    sizes: str | None
    lazy: bool
    hidden: bool
    width_attribute: float | None
    advice: tuple[str, ...] = ()  # where engines part on this markup whatever the window
    parts: bool = False  # whether engines can part in more than the width of `w`
    sizes_part: bool = False  # whether they can in that, where the img itself is taken


#: Limits of what is read: a page's whole source is far below the first, and no page nests as deep
#: as the second.
MOST_MARKUP = 2_000_000
MOST_AROUND = 500

_HIDING = re.compile(r"(^|;)\s*display\s*:\s*none\s*(!important\s*)?(;|$)", re.I)
_DIGITS = re.compile(r"\s*\+?(\d+(?:\.\d+)?)")


@lru_cache(maxsize=512)
def read_markup(markup: str, at: int = 0) -> Markup:
    """Read a fragment of HTML. The first `img` that a browser would load counts, or the one `at`
    that place among them. Raises InvalidPlan where there is none, or where the markup is longer or
    more deeply nested than any page."""
    if len(markup) > MOST_MARKUP:
        raise InvalidPlan(
            f"This is more than {MOST_MARKUP:,} characters. Give only the picture or img itself.",
            field="markup",
        )
    tree = _tree(markup)
    img = next(islice(_pictures(tree), at, None), None)
    if img is None:
        raise InvalidPlan(
            "There is no img in this markup. Paste an img, or a picture with an img in it.",
            field="markup",
        )
    attributes = _attributes(img)
    sources: list[Source] = []
    # auto there counts for sources too
    by_img = is_auto(attributes.get("sizes"))
    parent = img.parent
    if parent is not None and parent.tag == "picture":
        for child in parent.iter():
            if child.mem_id == img.mem_id:
                break
            if child.tag == "source":
                a = _attributes(child)
                label = f"source {len(sources) + 1}"
                sources.append(
                    Source(
                        label,
                        a.get("srcset"),
                        a.get("media"),
                        a.get("type"),
                        a.get("sizes"),
                        "sizes" in a,
                        by_img or sizes_part(a.get("sizes")),
                    )
                )
    width = _DIGITS.match(attributes.get("width", ""))
    texts: list[Texts] = [(attributes.get("srcset"), attributes.get("sizes"), None, None)]
    texts += [(s.srcset, s.sizes, s.media, s.type) for s in sources]
    lazy = attributes.get("loading", "").lower() == "lazy"
    advice, parts = parting(texts, lazy=lazy)
    return Markup(
        advice=tuple(advice),
        parts=parts,
        sizes_part=sizes_part(attributes.get("sizes")),
        sources=tuple(sources),
        srcset=attributes.get("srcset"),
        src=attributes.get("src", "").strip("\t\n\f\r "),
        sizes=attributes.get("sizes"),
        lazy=lazy,
        hidden=_hidden(img),
        width_attribute=float(width[1]) if width else None,
    )


#: The place of what shows its file as a background.
BACKGROUND = -1
#: The place of what stands in the page itself and fetches nothing.
INLINE = -2


def place_of(markup: str, called: str) -> int | None:
    """The place, among the pictures that a browser would load, of the one whose element has that
    class or is around it; BACKGROUND of an element that holds none, INLINE of one that holds a
    drawing; None where there is none."""
    tree = _tree(markup)
    element = next(
        (n for n in tree.css("[class]") if called in _attributes(n)["class"].split()), None
    )
    if element is None:
        return None
    img = element if element.tag == "img" else element.css_first("img")
    if img is None:
        return INLINE if element.css_first("svg") else BACKGROUND
    places = (i for i, n in enumerate(_pictures(tree)) if n.mem_id == img.mem_id)
    return next(places, None)


def _tree(markup: str) -> LexborHTMLParser:
    # inside a body, where a noscript at the very start is not taken for one in the head
    return LexborHTMLParser(f"<!DOCTYPE html><body>{markup}")


def _pictures(tree: LexborHTMLParser) -> Iterator[Any]:
    return (n for n in tree.css("img") if not _inert(n))


def _attributes(node: Any) -> dict[str, str]:
    return {name: value or "" for name, value in node.attributes.items()}


def _inert(node: Any) -> bool:
    return any(a.tag in ("noscript", "template") for a in _ancestors(node.parent))


def _ancestors(node: Any) -> Iterator[Any]:
    """The node and those around it. Raises InvalidPlan where there are more than any page has."""
    for _ in range(MOST_AROUND):
        if node is None:
            return
        yield node
        node = node.parent
    raise InvalidPlan(
        f"This is nested more than {MOST_AROUND} deep. Give only the picture or img itself.",
        field="markup",
    )


def _hidden(img: Any) -> bool:
    for node in _ancestors(img):
        if node.tag in ("-undef", "html", "body"):
            break
        a = _attributes(node)
        if "hidden" in a or _HIDING.search(a.get("style", "")):
            return True
    return False
