"""A small drawing as elements that can stand in a page (SVG 2; HTML Standard §4.8.17): what of it
is safe there, and whether it can have the colour of the text around it."""

from __future__ import annotations

import re
from collections.abc import Iterator
from functools import lru_cache
from typing import NamedTuple
from xml.etree import ElementTree

from skypane.model.original import MOST_DRAWING_BYTES

#: What draws, and what it draws with.
_TAGS = frozenset(
    (
        *("svg", "g", "defs", "symbol", "use", "clipPath", "mask", "pattern"),
        *("path", "rect", "circle", "ellipse", "line", "polyline", "polygon", "text", "tspan"),
        *("linearGradient", "radialGradient", "stop"),
    )
)
#: More elements within each other than any drawing has that somebody made.
MOST_DEPTH = 40
#: What is said of it for those who do not see it: the page says its own.
_UNSEEN = frozenset(("title", "desc", "metadata"))
_PAINTS = ("fill", "stroke", "stop-color", "color")
_REFERS = re.compile(r"url\(\s*['\"]?#([^'\")]+)['\"]?\s*\)")
_NO_COLOUR = frozenset(("none", "transparent", "inherit", "context-fill", "context-stroke"))


class Node(NamedTuple):
    """An element of a drawing: attributes in their order, children and texts."""

    tag: str
    attributes: tuple[tuple[str, str], ...]
    children: tuple[Node | str, ...]


class Drawn(NamedTuple):
    """A drawing that can stand in a page. `one_colour`: all that is painted has one, which is then
    that of the text around it."""

    root: Node
    one_colour: bool


@lru_cache(maxsize=256)
def read_drawing(text: str) -> Drawn | str:
    """The drawing, or why it cannot stand in a page, as a clause."""
    if len(text.encode()) > MOST_DRAWING_BYTES:
        return f"it has more than {MOST_DRAWING_BYTES // 1000} kB"
    if "<!" in text:
        return "there is a document type or a comment in it"
    try:
        tree = ElementTree.fromstring(text)
    except ElementTree.ParseError:
        return "it cannot be read"
    if _depth(tree) > MOST_DEPTH:
        return "it is nested too deeply"
    strange = next((t for t in map(_local, tree.iter()) if t not in _TAGS | _UNSEEN), None)
    if strange == "style":
        return "it has a style sheet of its own, which would reach the page"
    if strange is not None:
        return f"there is a {strange} in it"
    if _local(tree) != "svg" or not tree.get("viewBox"):
        return "it does not say how large it is"
    root = _node(tree)
    colours = set(_colours(root, "#000000"))
    if "url" in colours or len(colours - {"currentcolor"}) > 1:
        return Drawn(root, False)
    return Drawn(_painted(root), True)


def _depth(tree: ElementTree.Element) -> int:
    """How many elements lie within each other at most."""
    depth, level = 0, [tree]
    while level:
        depth, level = depth + 1, [child for node in level for child in node]
    return depth


def _local(node: ElementTree.Element) -> str:
    return str(node.tag).rpartition("}")[2]


def _node(of: ElementTree.Element) -> Node:
    said: dict[str, str] = {}
    for name, value in of.attrib.items():
        local = name.rpartition("}")[2]
        if local == "style":
            # as attributes: a page may forbid styles of elements
            parts = (d.partition(":") for d in value.split(";"))
            said |= {k.strip(): v.strip() for k, _, v in parts if k.strip() and v.strip()}
        elif local == "href" or (name == local and local != "class"):
            said[local] = value
    kept = {k: v for k, v in said.items() if _is_safe(k, v)}
    children: list[Node | str] = []
    if of.text and of.text.strip() and _local(of) in ("text", "tspan"):
        children.append(of.text.strip())
    children += [_node(c) for c in of if _local(c) not in _UNSEEN]
    return Node(_local(of), tuple(kept.items()), tuple(children))


def _is_safe(name: str, value: str) -> bool:
    if name.lower().startswith("on") or not re.fullmatch(r"[A-Za-z][\w-]*", name):
        return False
    if name == "href":
        return value.startswith("#")
    left = _REFERS.sub("", value).lower()
    return "url(" not in left and "javascript:" not in left and "\\" not in left


def _colours(of: Node, inherited: str) -> Iterator[str]:
    """The colours that something is painted in; "url": a gradient or pattern."""
    said = dict(of.attributes)
    fill = said.get("fill", inherited).strip().lower()
    fill = inherited if fill == "inherit" else fill
    draws = of.tag in ("path", "rect", "circle", "ellipse", "polyline", "polygon", "text")
    painted = [fill] if draws else []
    painted += [said[p].strip().lower() for p in _PAINTS[1:] if p in said]
    for colour in painted:
        if colour.startswith("url"):
            yield "url"
        elif colour not in _NO_COLOUR:
            yield _ALIKE.get(colour, colour)
    for child in of.children:
        if isinstance(child, Node):
            yield from _colours(child, fill)


#: The colour that most drawings of one colour have, as it may be written.
_ALIKE = dict.fromkeys(("black", "#000", "#000000", "rgb(0,0,0)", "rgb(0 0 0)"), "#000000")


def _painted(root: Node) -> Node:
    """With the colour of the text around it in the place of its own."""

    def one(of: Node) -> Node:
        said = tuple(
            (k, "currentColor") if k in _PAINTS and v.strip().lower() not in _NO_COLOUR else (k, v)
            for k, v in of.attributes
        )
        return Node(of.tag, said, tuple(one(c) if isinstance(c, Node) else c for c in of.children))

    found = one(root)
    if "fill" in dict(found.attributes):
        return found
    return found._replace(attributes=(*found.attributes, ("fill", "currentColor")))


def renamed(of: Node, prefix: str) -> Node:
    """With ids that nothing else on a page has."""

    def value(name: str, said: str) -> str:
        if name == "id":
            return f"{prefix}-{said}"
        if name == "href":
            return f"#{prefix}-{said[1:]}"
        return _REFERS.sub(rf"url(#{prefix}-\1)", said)

    said = tuple((k, value(k, v)) for k, v in of.attributes)
    inner = tuple(renamed(c, prefix) if isinstance(c, Node) else c for c in of.children)
    return Node(of.tag, said, inner)
