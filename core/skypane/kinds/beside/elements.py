"""Pictures with text beside them. Text is text: nothing that it holds is read as markup."""

from __future__ import annotations

from collections.abc import Sequence

from skypane.kinds.beside.layout import values_of
from skypane.markup.elements import Element, element
from skypane.markup.own import writes
from skypane.model import Item
from skypane.shown.nouns import Plan


def text_comes_first(plan: Plan) -> bool:
    """Whether a text is read before its picture: as they stand in the narrowest span."""
    v = values_of(plan.spots[0])
    return v.stacked == "below" if v.is_stacked else v.side == "end"


@writes("beside")
def beside_elements(plan: Plan, pictures: Sequence[Element | None]) -> Sequence[Element]:
    """A picture and its text for every part, in their order."""
    text_first, tag = text_comes_first(plan), f"h{plan.spots[0].level}"
    rows = []
    for part, picture in zip(plan.placement.usual, pictures, strict=True):
        both = [_text(part.item, tag), picture] if text_first else [picture, _text(part.item, tag)]
        rows.append(element("div", None, [each for each in both if each is not None]))
    return [element("div", {"class": plan.placement.called}, rows)]


def _text(item: Item | None, tag: str) -> Element | None:
    if item is None or not item.has_caption:
        return None
    title, text, own = item.title.strip(), item.text.strip(), {"dir": "auto"}
    out = []
    if title:
        link = element("a", {"href": item.href}, [title]) if item.href is not None else title
        out.append(element(tag, own, [link], on_a_line=True))
    if text:
        out.append(element("p", own, [text]))
    return element("div", None, out)
