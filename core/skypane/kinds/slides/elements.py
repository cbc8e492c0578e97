"""Slides with their controls, as the carousel pattern of the WAI-ARIA Authoring Practices has them
(grouped buttons).

Every control is written; the CSS of a span says which of them show. The one that starts and stops
comes first (APG), so that it can be reached before what moves.
"""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from skypane.markup.items import figure
from skypane.markup.lines import Line, attributes_html
from skypane.markup.own import writes
from skypane.markup.scripts import Script, brings
from skypane.model.spoken import filled
from skypane.shown.nouns import Plan


def _is_slideshow(plan: Plan) -> bool:
    return plan.layout.kind == "slides"


SCRIPT = brings(Script(Path(__file__).with_name("slides.js"), 6000, _is_slideshow, moves=True))


@writes("slides")
def slides_lines(plan: Plan, parts: Sequence[tuple[Line, ...]]) -> tuple[Line, ...]:
    """A slide for every part, in their order, under what controls them."""
    called, n, spoken = plan.placement.called, len(parts), plan.site.spoken
    whole = {
        "class": called,
        "aria-roledescription": spoken.carousel,
        "aria-label": plan.placement.name,
        "data-slideshow": "",
    }
    out = [Line(f"<section{attributes_html(whole)}>")]
    out += [Line(f"  {text}") for text in _controls(plan)]
    # what scrolls has to be reached by keyboard (WCAG 2.2, 2.1.1)
    track = {"data-slides": "", "id": f"{called}-slides", "tabindex": 0}
    named = {"role": "group", "aria-label": filled(spoken.slides, name=plan.placement.name)}
    out.append(Line(f"  <div{attributes_html({**track, **named})}>"))
    for i, (part, lines) in enumerate(zip(plan.placement.parts, parts, strict=True)):
        slide = {
            "role": "group",
            "aria-roledescription": spoken.slide,
            "aria-label": filled(spoken.place, n=i + 1, all=n),
        }
        out.append(Line(f"    <div{attributes_html(slide)}>"))
        out += [line.indented() for line in figure(part.item, lines)]
        out.append(Line("    </div>"))
    return (*out, Line("  </div>"), Line("</section>"))


def _controls(plan: Plan) -> list[str]:
    parts, of = plan.placement.parts, {"aria-controls": f"{plan.placement.called}-slides"}
    spoken = plan.site.spoken
    if len(parts) < 2:
        return []
    all_ = attributes_html({"role": "group", "aria-label": spoken.controls})
    out = ["<div data-controls>", f"  <div{all_}>"]
    # the script says one or the other
    said = {"data-moves": "", "data-stop": spoken.stop, "data-start": spoken.start}
    out.append(f"    {_button({**said, 'aria-label': spoken.stop, **of})}</button>")
    back = _button({"data-by": "-1", "aria-label": spoken.previous, **of})
    out.append(f"    {back}</button>")
    # in an element of their own, so that they are counted alone
    out.append("    <span>")
    for i, part in enumerate(parts):
        title = f": {part.item.title.strip()}" if part.item and part.item.title.strip() else ""
        label = f"{filled(spoken.go_to, n=i + 1, all=len(parts))}{title}"
        out.append(
            f"      {_button({'data-to': str(i), 'aria-label': label, **of})}{i + 1}</button>"
        )
    on = _button({"data-by": "1", "aria-label": spoken.next, **of})
    return [*out, "    </span>", f"    {on}</button>", "  </div>", "</div>"]


def _button(said: dict[str, object]) -> str:
    return f"<button{attributes_html({'type': 'button', **said})}>"
