"""The markup of a pane: that of the delivery, with previews in place of the files."""

from __future__ import annotations

from collections.abc import Callable

from skypane.geometry import WHOLE, Rect
from skypane.markup.lines import Line, attributes_html
from skypane.markup.picture import alt_text, blank_html
from skypane.model import Original, Placement, Site
from skypane.shown.plan import SpanPlan, crop_of
from skypane.widths.conditions import conditions


def pane_lines(
    site: Site,
    placement: Placement,
    plans: tuple[SpanPlan, ...],
    url: Callable[[Original, Rect | None], str],
) -> tuple[Line, ...]:
    """The markup of a pane: the same conditions, with previews of the originals' crops in place of
    the files."""
    if all(p.waits for p in plans):
        return ()
    shown = {p.span.letter: p for p in plans}
    lines = [Line(text=f'<picture class="{placement.called}">')]
    for letter, media in conditions(tuple(p.span for p in shown.values()), site.media_style):
        p = shown[letter]
        if p.original is None or p.shown is None:
            lines.append(Line(text=blank_html(placement, plans, media), spans=(letter,)))
            continue
        crop = crop_of(p.original, p.crop)
        size = {"width": crop.w, "height": crop.h}
        source = url(p.original, None if p.crop is WHOLE else p.effective.crop)
        if media is None:
            attributes: dict[str, str | int | None] = {
                "src": source,
                **size,
                "alt": alt_text(placement, plans) or "",
            }
            lines.append(Line(text=f"  <img{attributes_html(attributes)}>", spans=(letter,)))
        else:
            lines.append(
                Line(
                    text=f"  <source{attributes_html({'media': media, 'srcset': source, **size})}>",
                    spans=(letter,),
                )
            )
    lines.append(Line(text="</picture>"))
    return tuple(lines)
