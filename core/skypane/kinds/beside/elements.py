"""Pictures with text beside them. Text is text: nothing that it holds is read as markup."""

from __future__ import annotations

import html
from collections.abc import Sequence

from skypane.kinds.beside.layout import values_of
from skypane.markup.lines import Line, attributes_html
from skypane.markup.own import writes
from skypane.model import Item
from skypane.shown.nouns import Plan


def text_comes_first(plan: Plan) -> bool:
    """Whether a text is read before its picture: as they stand in the narrowest span."""
    v = values_of(plan.spots[0])
    return v.stacked == "below" if v.is_stacked else v.side == "end"


@writes("beside")
def beside_lines(plan: Plan, parts: Sequence[tuple[Line, ...]]) -> tuple[Line, ...]:
    """A picture and its text for every part, in their order."""
    out = [Line(f"<div{attributes_html({'class': plan.placement.called})}>")]
    text_first = text_comes_first(plan)
    for part, picture in zip(plan.placement.parts, parts, strict=True):
        text = _text_lines(part.item, f"h{plan.spots[0].level}")
        inner = [*text, *picture] if text_first else [*picture, *text]
        out += [Line("  <div>"), *(li.indented().indented() for li in inner), Line("  </div>")]
    return (*out, Line("</div>"))


def _text_lines(item: Item | None, tag: str) -> list[Line]:
    if item is None or not item.has_caption:
        return []
    title, text = (html.escape(t.strip(), quote=False) for t in (item.title, item.text))
    out = [Line("<div>")]
    if title:
        link = attributes_html({"href": item.href})
        said = f"<a{link}>{title}</a>" if item.href is not None else title
        out.append(Line(f'  <{tag} dir="auto">{said.replace(chr(10), "&#10;")}</{tag}>'))
    if text:
        out.append(Line(f'  <p dir="auto">{text.replace(chr(10), "&#10;")}</p>'))
    return [*out, Line("</div>")]
