"""The markup of a pane: that of the delivery, with previews in place of the files."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from skypane.files.names import part_class
from skypane.geometry import WHOLE, Rect
from skypane.markup.lines import Line, attributes_html
from skypane.markup.picture import alt_text, blank_html, boxed
from skypane.model import Original
from skypane.shown.nouns import PartPlan, Plan, Setting, ShownSpan, SpanPlan
from skypane.values import once
from skypane.widths.conditions import conditions, in_portrait

#: Tells where a preview of an original's crop (None: of all of it) is to be had that is drawn so
#: many CSS px wide at most.
PreviewUrl = Callable[[Original, Rect | None, float], str]


def pane_lines(plan: Plan, url: PreviewUrl) -> tuple[Line, ...]:
    """The markup of a pane: the same conditions, with previews of the originals' crops in place of
    the files. What still waits for a picture names its spans, so that the pane can show the frame's
    size there."""
    lines = boxed(plan, [_part_lines(plan, part, url) for part in plan.written])
    # nobody reads it: of a gallery of hundreds the room before each line is a tenth
    return tuple(line._replace(text=line.text.lstrip(" ")) for line in lines)


def _part_lines(plan: Plan, part: PartPlan, url: PreviewUrl) -> tuple[Line, ...]:
    name = part_class(plan.placement, part.index, bool(plan.layout.box))
    return _written(part, plan.instead(part), plan.setting, name, url)


@once
def _written(
    part: PartPlan, turned: PartPlan | None, setting: Setting, name: str, url: PreviewUrl
) -> tuple[Line, ...]:
    spans = {p.span.letter: p for p in part.spans}
    others = {p.span.letter: p for p in turned.shown} if turned else {}
    named = {
        "class": name,
        "data-waits": " ".join(p.span.letter for p in part.waiting) or None,
    }
    lines = [Line(text=f"<picture{attributes_html(named)}>")]
    asked = conditions(tuple(p.span for p in part.spans), setting.site.media_style)
    seen = [_preview(spans[letter], url) for letter, _ in asked]
    for i, (letter, media) in enumerate(asked):
        if letter in others:
            text = _source(part, _preview(others[letter], url), in_portrait(media))
            lines.append(Line(text=text, spans=(letter,)))
        # whoever does not come here comes to the next one, which shows the same
        if others or i + 1 == len(asked) or seen[i] != seen[i + 1]:
            lines.append(Line(text=_source(part, seen[i], media), spans=(letter,)))
    lines.append(Line(text="</picture>"))
    return tuple(lines)


class _Preview(NamedTuple):
    address: str
    width: int
    height: int


def _preview(p: SpanPlan, url: PreviewUrl) -> _Preview | None:
    """What shows in a span; None: nothing does."""
    if not isinstance(p, ShownSpan):
        return None
    w, h = p.spot.cells[p.index].natural
    drawn = float(p.inside.drawn_w.max())
    return _Preview(url(p.original, None if p.crop is WHOLE else p.crop, drawn), w, h)


def _source(part: PartPlan, shown: _Preview | None, media: str | None) -> str:
    if shown is None:
        return blank_html(part, media)
    address, w, h = shown
    if media is None:
        attributes = {"src": address, "width": w, "height": h, "alt": alt_text(part) or ""}
        return f"  <img{attributes_html(attributes)}>"
    attributes = {"media": media, "srcset": address, "width": w, "height": h}
    return f"  <source{attributes_html(attributes)}>"
