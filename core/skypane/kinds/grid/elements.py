"""A grid as a list of its items (HTML Standard §4.4.6), with what shows more of them and what turns
them."""

from __future__ import annotations

import html
from collections.abc import Sequence
from pathlib import Path

from skypane.kinds.grid.arranged import turned_stops, values_of, waiting_items
from skypane.markup.items import figure
from skypane.markup.lines import Line, attributes_html
from skypane.markup.own import writes
from skypane.markup.scripts import Script, brings
from skypane.model.spoken import filled
from skypane.shown.nouns import Plan


def is_turned_by_pages(plan: Plan) -> bool:
    """Whether there is more than one page to turn in some span."""
    is_grid = plan.layout.kind == "grid"
    return is_grid and any(turned_stops(s) > 1 for s in plan.spots)


TURNS = brings(Script(Path(__file__).with_name("turns.js"), 2000, is_turned_by_pages))


@writes("grid")
def list_lines(plan: Plan, parts: Sequence[tuple[Line, ...]]) -> tuple[Line, ...]:
    """A list item for every part, in their order, whether it has a picture yet or not."""
    called = plan.placement.called
    turned = any(values_of(s).is_turned for s in plan.spots)
    turns = is_turned_by_pages(plan)
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
