"""One picture of many with its caption and its link (HTML Standard §4.4.12). Text is text: nothing
that it holds is read as markup."""

from __future__ import annotations

from skypane.markup.elements import Element, element
from skypane.model import Item
from skypane.values import once


def figure(item: Item | None, picture: Element | None) -> Element:
    """A picture with its caption and its link."""
    return _figure(None, item) if picture is None else _around(picture, item)


@once
def _around(picture: Element, item: Item | None) -> Element:
    """As long as the picture stays, and what is said of it."""
    return _figure(picture, item)


def _figure(picture: Element | None, item: Item | None) -> Element:
    inner = [] if picture is None else [picture]
    if item and item.href is not None and inner:
        inner = [element("a", {"href": item.href}, inner)]
    if item and item.has_caption:
        said = (("b", item.title.strip()), ("span", item.text.strip()))
        captions = [element(tag, {"dir": "auto"}, [text]) for tag, text in said if text]
        inner.append(element("figcaption", None, captions))
    return element("figure", None, inner)
