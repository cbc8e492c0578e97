"""Many pictures as a list, each with its caption and its link (HTML Standard §4.4.6, §4.4.12). Text
is text: nothing that it holds is read as markup."""

from __future__ import annotations

import html
from collections.abc import Sequence
from functools import lru_cache

from skypane.layouts.arranged import turned_stops, values_of, waiting_items
from skypane.markup.lines import Line, attributes_html
from skypane.model import Item
from skypane.model.spoken import filled
from skypane.shown.nouns import Plan


def list_lines(plan: Plan, parts: Sequence[tuple[Line, ...]]) -> tuple[Line, ...]:
    """A list item for every part, in their order, whether it has a picture yet or not."""
    called = plan.placement.called
    turned = any(values_of(s).is_turned for s in plan.spots)
    turns = any(turned_stops(s) > 1 for s in plan.spots)
    attributes = {
        "class": called,
        # without bullets a list is no longer told as one by some screen readers, unless it says so
        "role": "list",
        "id": f"{called}-row" if turns else None,
        # what scrolls has to be reached by keyboard (WCAG 2.2, 2.1.1)
        "tabindex": 0 if turned else None,
        "aria-label": plan.placement.name if turned else None,
    }
    out = [Line(f"<ul{attributes_html(attributes)}>")]
    later = first_waiting(plan)
    for i, (part, lines) in enumerate(zip(plan.placement.parts, parts, strict=True)):
        named = attributes_html({"id": f"{called}-more" if i == later else None})
        out.append(Line(f"  <li{named}>"))
        out += figure(part.item, lines)
        out.append(Line("  </li>"))
    if later is not None:
        more = html.escape(values_of(plan.spots[-1]).more, quote=False)
        link = f'<a href="#{called}-more">{more}</a>'
        out.append(Line(f"  <li data-more>{link}</li>"))
    return (*out, Line("</ul>"), *(_turning(plan) if turns else ()))


def _turning(plan: Plan) -> list[Line]:
    """Buttons that turn the row, and which page of it shows; without a script they are not
    there, and the row is scrolled."""
    called, spoken, of = plan.placement.called, plan.site.spoken, {"type": "button"}
    group = {
        "class": f"{called}-turns",
        "role": "group",
        "aria-label": filled(spoken.pages, name=plan.placement.name),
        "data-turns": "",
    }
    row = {"aria-controls": f"{called}-row"}
    back = attributes_html({**of, "data-by": "-1", "aria-label": spoken.previous_page, **row})
    on = attributes_html({**of, "data-by": "1", "aria-label": spoken.next_page, **row})
    place = attributes_html({"data-place": spoken.place})
    lines = (f"<button{back}></button>", f"<output{place}></output>", f"<button{on}></button>")
    return [
        Line(f"<div{attributes_html(group)}>"),
        *(Line(f"  {text}") for text in lines),
        Line("</div>"),
    ]


def first_waiting(plan: Plan) -> int | None:
    """The first item that does not show in some span until more is asked for."""
    found = [waiting_items(s)[0] for s in plan.spots if waiting_items(s)]
    return min(found, default=None)


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
