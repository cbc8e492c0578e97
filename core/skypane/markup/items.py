"""One picture of many with its caption and its link (HTML Standard §4.4.12). Text is text: nothing
that it holds is read as markup."""

from __future__ import annotations

from skypane.markup.elements import Element, element
from skypane.model import Item


def figure(item: Item | None, picture: Element | None) -> Element:
    """A picture with its caption and its link."""
    inner = [] if picture is None else [picture]
    if item and item.href is not None and inner:
        inner = [element("a", {"href": item.href}, inner)]
    if item and item.has_caption:
        said = (("b", item.title.strip()), ("span", item.text.strip()))
        captions = [element(tag, {"dir": "auto"}, [text]) for tag, text in said if text]
        inner.append(element("figcaption", None, captions))
    return element("figure", None, inner)
