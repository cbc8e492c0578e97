"""Which elements of a page a selector hits (Selectors Level 4, as Lexbor reads it)."""

from __future__ import annotations

from selectolax.lexbor import LexborHTMLParser, LexborNode, SelectolaxError

from skypane.found.nouns import NothingFound
from skypane.values import Noun

#: So many are told of one by one.
MOST_TOLD = 20


class Hit(Noun):
    """An element: where it is in the page, as a path of tags with their ids and classes, and the
    first words in it."""

    path: str
    words: str


class Hits(Noun):
    """How many elements a selector hits, and which the first ones are."""

    n: int
    first: tuple[Hit, ...]


def hits_in(page: str, selector: str) -> Hits:
    """What a selector hits in a page. Raises NothingFound where the selector cannot be read."""
    try:
        found = LexborHTMLParser(page).css(selector)
    except (SelectolaxError, ValueError):
        raise NothingFound(
            f"{selector[:80]} is no selector that can be read. Write one as in a style sheet:"
            " .hero > .image",
            field="selector",
        ) from None
    return Hits(n=len(found), first=tuple(_hit(node) for node in found[:MOST_TOLD]))


def _hit(node: LexborNode) -> Hit:
    path: list[str] = []
    at: LexborNode | None = node
    while at is not None and at.tag not in ("html", "-undef", None):
        path.append(_named(at))
        at = at.parent
    words = " ".join((node.text() or "").split())
    return Hit(path=" > ".join(reversed(path))[-200:], words=words[:60])


def _named(node: LexborNode) -> str:
    of = node.attributes
    if of.get("id"):
        return f"{node.tag}#{of['id']}"
    classes = (of.get("class") or "").split()[:2]
    return "".join([node.tag or "", *(f".{c}" for c in classes)])
