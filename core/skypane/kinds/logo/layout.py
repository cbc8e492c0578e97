"""A logo in cuts that differ with the width: the kind, its box and its CSS.

The box is one for all cuts, and nothing of a cut is ever cut off: it is drawn whole, inside the
box's padding. Which of them shows is what each span shows, so that exactly one does at any width.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from typing import cast

import numpy as np

from skypane.errors import InvalidPlan
from skypane.kinds.logo.handles import handles_of
from skypane.kinds.logo.values import MOST_CUTS, LogoValues
from skypane.layouts import Frame, Handle, Layout, OfLayout, Spot, known
from skypane.model import (
    FixedAim,
    FixedWidth,
    Placement,
    RatioHeight,
    Site,
    Treatment,
)
from skypane.numerals import number, px
from skypane.treatments import Effective, with_values
from skypane.values import Noun
from skypane.widths.frame_css import height_css, standing_css, width_css
from skypane.widths.frames import (
    Floats,
    Piece,
    depends_on_viewport_height,
    frame_heights,
    frame_widths,
)
from skypane.widths.lines import straight_lines
from skypane.widths.spans import spans_of

_ACROSS = {"start": 0.0, "centre": 0.5, "end": 1.0}
_CSS = {"start": "start", "centre": "center", "end": "end"}


def values_of(spot: Spot) -> LogoValues:
    return cast(LogoValues, spot.values)


def box_of(spot: Spot) -> tuple[Floats, Floats]:
    """Width and height of the box that all cuts have, (heights, widths), in CSS px: never wider
    than the page. Raises InvalidPlan where its padding leaves nothing."""
    v, e, viewports = values_of(spot), spot.cells[0].effective, spot.viewports
    vh = viewports.heights if depends_on_viewport_height(e.height) else viewports.heights[1:2]
    page = spot.page_widths
    W = np.minimum(frame_widths(e.width, page, spot.container), page)
    W = np.broadcast_to(W, vh.shape).copy()
    H = frame_heights(e.height, W, vh, spot.cells[0].ratio)
    room = np.minimum(W, H).min(axis=0) - 2 * v.padding_px
    narrow = np.flatnonzero(room < 1)
    if narrow.size and v.padding_px and e.show != "nothing":
        at = int(narrow[0])
        raise OfLayout(
            f"A padding of {number(v.padding_px)} px on every side takes"
            f" {number(2 * v.padding_px)} px of a box of {number(round(float(W[0][at]), 1))} ×"
            f" {number(round(float(H[0][at]), 1))} at {int(viewports.widths[at])} px, span"
            f" {spot.span.letter}: nothing is left. Give less.",
            field="padding_px",
        )
    return W, H


def drawn_width(spot: Spot, ratio: float, own_px: float) -> Floats:
    """How wide a cut of this ratio would be drawn at every viewport of a span, in CSS px: the least
    over viewport heights, (widths,). `own_px` is its own width."""
    v = values_of(spot)
    W, H = box_of(spot)
    drawn: Floats = np.minimum(W - 2 * v.padding_px, (H - 2 * v.padding_px) * ratio).min(axis=0)
    return np.minimum(drawn, own_px) if v.drawn == "natural" else drawn


@known
class Logo(Layout):
    kind = "logo"
    Values = LogoValues
    width_word = "Logo width"
    box = "div"
    cell = "div"

    def check(self, placement: Placement) -> None:
        super().check(placement)
        if placement.parts[0].role is not None:
            raise InvalidPlan("A logo has one part.", field="parts")

    def begin(self, site: Site, placement: Placement) -> Placement:
        """A box of 240 × 80 px, and the original that shows as its first cut."""
        letter = spans_of(site)[-1].letter
        part = placement.parts[0].model_copy(update={"role": None, "item": None})
        own = part.treatments.get(letter, Treatment())
        box = Treatment(width=FixedWidth(width_px=240), height=RatioHeight(w=3, h=1))
        treatments = {**part.treatments, **with_values({letter: own}, letter, box)}
        shown = (t.original for t in treatments.values() if t.original is not None)
        cuts = [{"original": i, "lettering_percent": None} for i in dict.fromkeys(shown)]
        layout = {letter: {"cuts": cuts[:MOST_CUTS]}} if cuts else {}
        part = part.model_copy(update={"treatments": treatments})
        parts = (part, *placement.parts[1:])
        return placement.model_copy(update={"parts": parts, "layout": layout})

    def with_first(self, placement: Placement, letter: str, original: int) -> Placement:
        """It is the first cut."""
        own = placement.layout.get(letter, {})
        if own.get("cuts"):
            return placement
        cuts = [{"original": original, "lettering_percent": None}]
        layout = {**placement.layout, letter: {**own, "cuts": cuts}}
        return placement.model_copy(update={"layout": layout})

    def together(self, held: tuple[Effective, ...], values: Noun) -> tuple[Effective, ...]:
        """All of a cut shows, where it is aligned."""
        aim = FixedAim(x=_ACROSS[cast(LogoValues, values).lies], y=0.5)
        return tuple(replace(e, fit="contain", aim=aim) for e in held)

    def box_widths(self, spot: Spot) -> Floats:
        widths: Floats = box_of(spot)[0].max(axis=0)
        return widths

    def frame(self, spot: Spot, part: int) -> Frame:
        v, p = values_of(spot), values_of(spot).padding_px
        W, H = box_of(spot)
        w, h = W - 2 * p, H - 2 * p
        if v.drawn == "natural":
            own_w, own_h = spot.cells[part].natural
            w, h = np.minimum(w, own_w), np.minimum(h, own_h)
        x = p + _ACROSS[v.lies] * (W - 2 * p - w)
        return Frame(w, h, x, p + (H - 2 * p - h) / 2)

    def handles(self, spot: Spot) -> Iterable[Handle]:
        return handles_of(spot, box_of)

    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        return straight_lines(spot.viewports.widths, self.frame(spot, part).W[0])

    def rules(self, spot: Spot) -> dict[str, dict[str, str]]:
        v, e = values_of(spot), spot.cells[0].effective
        widths = frame_widths(e.width, spot.page_widths, spot.container)
        fills = v.bar or (widths >= spot.page_widths - 0.01).all()
        box = {
            "box-sizing": "border-box",
            "width": width_css(e.width, spot.container),
            "max-width": "100%",
            "padding": px(v.padding_px),
            **height_css(e.height, spot.cells[0].natural),
        }
        stands = standing_css(e.stands, e.width, spot.container)
        gone = e.show == "nothing"
        return {
            "": {
                "display": "none" if gone else "block",
                "background": e.background if v.bar else "none",
            },
            " > div": {
                **box,
                "display": "grid",
                "grid-template": "minmax(0, 1fr) / minmax(0, 1fr)",
                "margin-inline": "0" if fills and not v.bar else stands,
                "background": "none" if v.bar else e.background,
            },
        }

    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        v, (w, h) = values_of(spot), spot.cells[part].natural
        natural = v.drawn == "natural"
        return {
            "display": "block",
            "width": f"min(100%, {w}px)" if natural else "100%",
            "height": f"min(100%, {h}px)" if natural else "100%",
            "justify-self": _CSS[v.lies],
            "align-self": "center",
        }
