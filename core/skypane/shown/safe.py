"""The safe area for whoever makes or changes a picture (rules §4).

Of an original that is there: what of it is in view at every width of all the spans that show it. Of
a picture that is still to be made: how large it has to be, and where what matters belongs.
"""

from __future__ import annotations

from collections.abc import Iterable

from skypane.errors import NotThere
from skypane.geometry import WHOLE, Rect, overlap
from skypane.shown.brief import brief
from skypane.shown.nouns import PartPlan, ShownSpan
from skypane.values import Noun


class SafeArea(Noun):
    """Sizes in image px; `safe` in fractions of the picture and `safe_px` by its edges x0, x1, y0,
    y1, both None where no part always shows. `original` is the name of the one that is there,
    `density` what a picture to be made is sharp at."""

    spans: tuple[str, ...]
    original: str | None
    width_px: int
    height_px: int
    safe: Rect | None
    safe_px: tuple[int, int, int, int] | None
    density: float | None
    sentence: str


def safe_area_of(
    part: PartPlan,
    density: float,
    *,
    letter: str | None = None,
    original: int | None = None,
    ratio: float | None = None,
) -> SafeArea:
    """The safe area of one span, or of all. `original` chooses among several; `ratio`, width over
    height, is wished for a picture to be made.

    Raises NotThere where there is no such span, or none shows a picture.
    """
    spans = [p for p in part.spans if letter in (None, p.span.letter)]
    if not spans:
        raise NotThere(f"There is no span {letter} in this site.", field="span")
    shown = [p for p in spans if isinstance(p, ShownSpan)]
    if original is not None:
        shown = [p for p in shown if p.original.id == original]
    elif ratio is not None or any(p.effective.waits for p in spans):
        found = brief(spans, density, ratio)
        if found is None:
            raise NotThere("No picture is asked for there.")
        return _said(found.spans, None, (found.width_px, found.height_px), found.safe, density)
    if not shown:
        raise NotThere("No picture shows there, so there is no safe area.")
    of = shown[0].original
    mine = [p for p in shown if p.original.id == of.id]
    letters = tuple(p.span.letter for p in mine)
    return _said(letters, of.name, (of.width_px, of.height_px), always_in_view(mine), None)


def always_in_view(spans: Iterable[ShownSpan]) -> Rect | None:
    """What of an original is in view at every width of all these spans, which show it."""
    safe: Rect | None = WHOLE
    for p in spans:
        safe = overlap(safe, p.safe)
    return safe


def in_px(safe: Rect | None, width_px: int, height_px: int) -> tuple[int, int, int, int] | None:
    """The edges x0, x1, y0, y1 in px of a picture of this size."""
    if safe is None:
        return None
    x0, x1, y0, y1 = safe.edges
    return round(x0 * width_px), round(x1 * width_px), round(y0 * height_px), round(y1 * height_px)


def _said(
    spans: tuple[str, ...],
    original: str | None,
    size: tuple[int, int],
    safe: Rect | None,
    density: float | None,
) -> SafeArea:
    w, h = size
    where = f"span {spans[0]}" if len(spans) == 1 else f"spans {', '.join(spans)}"
    made = f"At least {w} × {h} px for {density:g}x. " if density else f"{w} × {h} px. "
    px, said = in_px(safe, w, h), f"{made}No part shows at every width of {where}."
    if safe and px:
        said = (
            f"{made}In view at every width of {where}: x {px[0]} to {px[1]}, y {px[2]} to {px[3]}."
        )
        safe = Rect.between(*(round(v, 5) for v in safe.edges))
    return SafeArea(
        spans=spans,
        original=original,
        width_px=w,
        height_px=h,
        safe=safe,
        safe_px=px,
        density=density,
        sentence=said,
    )
