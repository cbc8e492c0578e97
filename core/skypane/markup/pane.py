"""The markup of a pane: that of the delivery, with previews in place of the files."""

from __future__ import annotations

from collections.abc import Callable

from skypane.files.inline import inline_of
from skypane.files.names import part_class
from skypane.geometry import WHOLE, Rect
from skypane.markup.drawing import drawing_element
from skypane.markup.elements import Candidate, Element, File
from skypane.markup.html import UNREAD
from skypane.markup.lines import Line
from skypane.markup.picture import alt_text, boxed
from skypane.markup.sources import Img, Served, Source, picture_element
from skypane.markup.substitute import MOST_WIDTH_PX
from skypane.model import Original
from skypane.shown.nouns import PartPlan, Plan, Setting, ShownSpan, SpanPlan
from skypane.values import once
from skypane.widths.conditions import media_of
from skypane.widths.spans import Span

#: Tells where a preview of an original's crop (None: of all of it) is to be had that is drawn so
#: many CSS px wide at most.
PreviewUrl = Callable[[Original, Rect | None, float], str]


def pane_lines(plan: Plan, url: PreviewUrl) -> tuple[Line, ...]:
    """The markup of a pane: the same conditions, with previews of the originals' crops in place of
    the files. What still waits for a picture names its spans, so that the pane can show the frame's
    size there."""
    return UNREAD.lines(boxed(plan, [_part(plan, p, url) for p in plan.written]))


def _part(plan: Plan, part: PartPlan, url: PreviewUrl) -> Element:
    name = part_class(plan.placement, part.index, bool(plan.layout.box))
    inline = inline_of(plan, part)
    if inline is not None:
        told = {"data-part": str(part.index)}
        return drawing_element(inline, name, alt_text(part) or "", **told)
    substitute = None if part.part.role else plan.substitute
    instead = url(substitute, None, MOST_WIDTH_PX) if substitute else None
    return _written(part, plan.alternatives(part), plan.setting, name, url, instead)


@once
def _written(
    part: PartPlan,
    others: tuple[PartPlan, ...],
    setting: Setting,
    name: str,
    url: PreviewUrl,
    substitute: str | None,
) -> Element:
    served: list[Served] = []
    for at, p in enumerate(part.spans):
        instead = tuple(
            (media_of(other.part.when), _previews(other.spans[at], url))
            for other in others
            if p.span.letter not in other.usual
        )
        one = Served(p.span, (p.span.letter,), _previews(p, url), instead)
        # where neighbours show the same they are one
        last = served[-1] if served else None
        if last and (last.sources, last.instead) == (one.sources, one.instead):
            span = Span(p.span.letter, "", last.span.first, p.span.last)
            served[-1] = one._replace(span=span, letters=(*last.letters, *one.letters))
        else:
            served.append(one)
    waits = " ".join(p.span.letter for p in part.waiting) or None
    img = Img(alt_text(part) or "", {"data-instead": File(substitute) if substitute else None})
    told = {"data-part": str(part.index), "data-role": part.part.role, "data-waits": waits}
    return picture_element({"class": name, **told}, served, setting.site.media_style, img)


def _previews(p: SpanPlan, url: PreviewUrl) -> tuple[Source, ...]:
    """What shows in a span; nothing where nothing does."""
    if not isinstance(p, ShownSpan):
        return ()
    w, h = p.spot.cells[p.index].natural
    drawn = float(p.inside.drawn_w.max())
    address = url(p.original, None if p.crop is WHOLE else p.crop, drawn)
    return (Source((Candidate(address, ""),), address, w, h),)
