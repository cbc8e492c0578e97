"""How wide the page is that a picture of the design was drawn for, guessed from its px."""

from __future__ import annotations

from collections.abc import Iterable

#: Widths that pages are drawn at, in CSS px, the commonest first (common practice).
USUAL_WIDTHS = (1440, 390, 375, 1280, 1920, 360, 768, 1024, 393, 414, 834, 1366, 1536, 820, 430)
#: Densities that designs are exported at, the commonest first.
DENSITIES = (1.0, 2.0, 3.0, 1.5, 4.0)


def guessed_width(width_px: int, known: Iterable[int], narrowest: int, widest: int) -> int:
    """The width in CSS px: one that the site's other designs have, else a usual one, at the
    plainest density; what is neither is taken for as wide as it is, or for the density that brings
    it among the site's widths."""
    for widths in (tuple(known), USUAL_WIDTHS):
        for density in DENSITIES:
            if any(round(width * density) == width_px for width in widths):
                return round(width_px / density)
    for density in DENSITIES:
        if narrowest <= width_px / density <= widest:
            return round(width_px / density)
    return min(max(width_px, narrowest), widest)
