"""Slides with their controls, as the carousel pattern of the WAI-ARIA Authoring Practices has them
(grouped buttons).

Every control is written; the CSS of a span says which of them show. The one that starts and stops
comes first (APG), so that it can be reached before what moves.
"""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from skypane.markup.elements import Element, Value, element
from skypane.markup.items import figure
from skypane.markup.own import writes
from skypane.markup.scripts import Script, brings
from skypane.model.spoken import filled
from skypane.shown.nouns import Plan


def _is_slideshow(plan: Plan) -> bool:
    return plan.layout.kind == "slides"


SCRIPT = brings(Script(Path(__file__).with_name("slides.js"), 6000, _is_slideshow, moves=True))


@writes("slides")
def slides_elements(plan: Plan, pictures: Sequence[Element | None]) -> Sequence[Element]:
    """A slide for every part, in their order, under what controls them."""
    called, n, spoken = plan.placement.called, len(pictures), plan.site.spoken
    whole = {
        "class": called,
        "aria-roledescription": spoken.carousel,
        "aria-label": plan.placement.name,
        "data-slideshow": "",
    }
    # what scrolls has to be reached by keyboard (WCAG 2.2, 2.1.1)
    track: dict[str, Value] = {
        "data-slides": "",
        "id": f"{called}-slides",
        "tabindex": 0,
        "role": "group",
        "aria-label": filled(spoken.slides, name=plan.placement.name),
    }
    slides = []
    for i, (part, picture) in enumerate(zip(plan.placement.usual, pictures, strict=True)):
        slide = {
            "role": "group",
            "aria-roledescription": spoken.slide,
            "aria-label": filled(spoken.place, n=i + 1, all=n),
        }
        slides.append(element("div", slide, [figure(part.item, picture)]))
    controls = [_controls(plan)] if n > 1 else []
    return [element("section", whole, [*controls, element("div", track, slides)])]


def _controls(plan: Plan) -> Element:
    parts, of = plan.placement.usual, {"aria-controls": f"{plan.placement.called}-slides"}
    spoken = plan.site.spoken
    # the script says one or the other
    said = {"data-moves": "", "data-stop": spoken.stop, "data-start": spoken.start}
    moves = _button({**said, "aria-label": spoken.stop, **of})
    back = _button({"data-by": "-1", "aria-label": spoken.previous, **of})
    each = []
    for i, part in enumerate(parts):
        title = f": {part.item.title.strip()}" if part.item and part.item.title.strip() else ""
        label = f"{filled(spoken.go_to, n=i + 1, all=len(parts))}{title}"
        each.append(_button({"data-to": str(i), "aria-label": label, **of}, str(i + 1)))
    on = _button({"data-by": "1", "aria-label": spoken.next, **of})
    # those for one slide each in an element of their own, so that they are counted alone
    inner = [moves, back, element("span", None, each), on]
    all_ = element("div", {"role": "group", "aria-label": spoken.controls}, inner)
    return element("div", {"data-controls": True}, [all_])


def _button(said: dict[str, str], text: str = "") -> Element:
    return element("button", {"type": "button", **said}, [text] if text else ())
