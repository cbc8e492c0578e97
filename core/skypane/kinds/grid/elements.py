"""A grid as a list of its items (HTML Standard §4.4.6), with what shows more of them and what turns
them."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from skypane.kinds.grid.arranged import turned_stops, values_of, waiting_items
from skypane.markup.elements import Element, element
from skypane.markup.items import figure
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
def grid_elements(plan: Plan, pictures: Sequence[Element | None]) -> Sequence[Element]:
    """A list item for every part, in their order, whether it has a picture yet or not."""
    called = plan.placement.called
    turned = any(values_of(s).is_turned for s in plan.spots)
    turns = is_turned_by_pages(plan)
    later, of = first_waiting(plan), [part.item for part in plan.placement.usual]
    items = [
        element("li", {"id": f"{called}-more" if i == later else None}, [figure(item, picture)])
        for i, (item, picture) in enumerate(zip(of, pictures, strict=True))
    ]
    if later is not None:
        link = element("a", {"href": f"#{called}-more"}, [values_of(plan.spots[-1]).more])
        items.append(element("li", {"data-more": True}, [link], on_a_line=True))
    attributes = {
        "class": called,
        # without bullets a list is no longer told as one by some screen readers, unless it says so
        "role": "list",
        "id": f"{called}-row" if turns else None,
        # what scrolls has to be reached by keyboard (WCAG 2.2, 2.1.1)
        "tabindex": 0 if turned else None,
        "aria-label": plan.placement.name if turned else None,
    }
    return [element("ul", attributes, items), *([_turning(plan)] if turns else [])]


def _turning(plan: Plan) -> Element:
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
    back = {**of, "data-by": "-1", "aria-label": spoken.previous_page, **row}
    on = {**of, "data-by": "1", "aria-label": spoken.next_page, **row}
    place = element("output", {"data-place": spoken.place})
    return element("div", group, [element("button", back), place, element("button", on)])


def first_waiting(plan: Plan) -> int | None:
    """The first item that does not show in some span until more is asked for."""
    found = [waiting_items(s)[0] for s in plan.spots if waiting_items(s)]
    return min(found, default=None)
