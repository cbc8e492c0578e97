"""The nine places of the words of a banner, side by side."""

from __future__ import annotations

import numpy as np

from skypane.model import PLACES, Place
from skypane.numerals import number
from skypane.shown.clear import block_edges, corner, covered, in_quiet
from skypane.shown.nouns import SpanPlan
from skypane.shown.under import Pixels, at_widths, composited, under
from skypane.values import Noun
from skypane.words.contrast import contrast, luminance, luminance_of, needed

#: Widths and px of a text that are looked at for each place.
WIDTHS, PX = 6, 200


class PlaceRating(Noun):
    """One of the nine places over a span: the keep areas that the words would cover there, the
    least ratio of any text, as a share of what that text needs (None where the picture is not to be
    had), and the share of the words that always lies in quiet areas. `why` says it in words."""

    place: Place
    covers: tuple[str, ...]
    contrast: float | None
    quiet: float
    best: bool
    why: str


def ratings(p: SpanPlan, pixels: Pixels) -> tuple[PlaceRating, ...]:
    """All nine, row by row; nothing where no words lie on the picture. The best covers no area, can
    be read, lies in a quiet area, and then has the most contrast; the present place wins where
    another is no better."""
    laid, v = p.laid, p.on_picture
    if laid.block is None or v.shows != "on":
        return ()
    found = []
    for place in PLACES:
        edges = block_edges(p, place)
        found.append(
            PlaceRating(
                place=place,
                covers=tuple(covered(p, edges)),
                contrast=_contrast(p, pixels, place),
                quiet=round(in_quiet(p, edges), 3),
                best=False,
                why="",
            )
        )

    def merit(r: PlaceRating) -> tuple[float, ...]:
        reads = r.contrast is None or r.contrast >= 1
        return (
            -len(r.covers),
            reads,
            r.quiet > 0.95,
            r.place == v.place and not r.covers and reads,
            round(r.quiet, 1),
            r.contrast or 0,
        )

    best = max(found, key=merit)
    return tuple(
        r.model_copy(
            update={
                "best": r is best and not r.covers and (r.contrast is None or r.contrast >= 1),
                "why": _why(r),
            }
        )
        for r in found
    )


def _contrast(p: SpanPlan, pixels: Pixels, place: Place) -> float | None:
    block = p.laid.block
    if block is None:
        return None
    n = len(p.viewport_w)
    columns = np.unique(np.linspace(0, n - 1, WIDTHS).astype(int))
    at = at_widths(p, columns)
    x, y = corner(p, block, place)
    x, y = (np.broadcast_to(a, p.W.shape)[at.rows, at.columns] for a in (x, y))
    least = np.inf
    for text in block.texts:
        if text.fill is not None:
            continue
        found = under(p, pixels, text, at, (x, y), PX)
        if found is None:
            return None
        laid = composited(found, p.on_picture, text)
        got = contrast(luminance_of(text.ink), luminance(laid))
        least = min(least, float(got.worst.min()) / needed(text.large))
    return round(least, 3) if np.isfinite(least) else None


def _why(r: PlaceRating) -> str:
    said = []
    if r.covers:
        said.append(f"covers {' and '.join(r.covers)}")
    if r.contrast is not None and r.contrast < 1:
        said.append(f"{number(round(r.contrast * 100))} % of the contrast needed")
    if r.quiet > 0.95:
        said.append("in a quiet area")
    return ", ".join(said) or "clear, and can be read"
