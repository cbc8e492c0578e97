"""Down to which width the lettering of a mark can be read: of what is marked as lettering on its
original, as for the cuts of a logo."""

from __future__ import annotations

from skypane.galleries.logo import Cut, least_width
from skypane.shown.nouns import ShownSpan
from skypane.widths.frames import Floats


def lettering_of(p: ShownSpan) -> Cut | None:
    """The cut that a span shows with the lowest of its lettering; None where none is marked."""
    heights = [a.rect.h for a in p.original.areas if a.lettering]
    if not heights:
        return None
    ratio = p.cut.w * p.original.width_px / (p.cut.h * p.original.height_px)
    return Cut(ratio, min(min(heights) / p.cut.h, 1.0))


def readable_from(p: ShownSpan) -> float | None:
    """The width in CSS px from which it can be read; None where no lettering is marked."""
    cut = lettering_of(p)
    return None if cut is None else least_width(cut)


def drawn_cut(p: ShownSpan) -> Floats:
    """How wide a span's cut is drawn, in CSS px, the least over viewport heights, (widths,)."""
    drawn: Floats = p.drawn_cut_width.min(axis=0)
    return drawn
