"""One picture of many with its caption and its link (HTML Standard §4.4.12). Text is text: nothing
that it holds is read as markup."""

from __future__ import annotations

import html
from functools import lru_cache

from skypane.markup.lines import Line, attributes_html
from skypane.model import Item


@lru_cache(maxsize=4096)
def figure(item: Item | None, picture: tuple[Line, ...]) -> tuple[Line, ...]:
    """A picture with its caption and its link. While one of many is worked on the others stay."""
    inner = list(picture)
    if item and item.href is not None and inner:
        link = attributes_html({"href": item.href})
        inner = [Line(f"<a{link}>"), *(li.indented() for li in inner), Line("</a>")]
    if item and item.has_caption:
        inner.append(Line("<figcaption>"))
        if item.title.strip():
            inner.append(Line(f'  <b dir="auto">{_text(item.title)}</b>'))
        if item.text.strip():
            inner.append(Line(f'  <span dir="auto">{_text(item.text)}</span>'))
        inner.append(Line("</figcaption>"))
    return tuple(
        [Line("    <figure>"), *(Line(f"      {li.text}", li.spans) for li in inner)]
        + [Line("    </figure>")]
    )


def _text(text: str) -> str:
    return html.escape(text.strip(), quote=False).replace("\n", "&#10;")
