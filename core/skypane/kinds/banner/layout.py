"""A picture that something lies on: words, a mark, a small cut of itself.

The box is a grid of one cell, or of two rows or columns where the words stand beside the picture. A
strut without content gives the cell its height, so that the picture, which fills the cell, grows
with it where words, mark or inset need more room than the height rule gives (WCAG 2.2, 1.4.4 and
1.4.12: nothing is lost when text is enlarged).
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import replace
from functools import lru_cache
from typing import NamedTuple, cast

import numpy as np
from pydantic import JsonValue

from skypane.errors import InvalidPlan
from skypane.kinds.banner.handles import handles_of
from skypane.kinds.banner.values import BannerValues
from skypane.layouts import Frame, Handle, Laid, Layout, OfLayout, Spot, column_and_row, known
from skypane.model import Placement, Site, Words
from skypane.numerals import number, px
from skypane.treatments import Effective
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
from skypane.words import scrim
from skypane.words.block import Block, block_of, css_rules

#: A margin may take at most this share of the banner's width from both sides together: beyond it
#: it is the margin that is seen, not what it holds.
MOST_MARGIN = 0.5
#: What words begin with on the narrowest screens, where the defaults of wide ones leave no room
#: (common practice).
ON_A_PHONE: dict[str, JsonValue] = {
    "percent": 100,
    "heading_px": 28,
    "text_px": 16,
    "margin_px": 16,
}


def values_of(spot: Spot) -> BannerValues:
    return cast(BannerValues, spot.values)


def shows_words(spot: Spot) -> bool:
    said = spot.words is not None and not spot.words.empty
    return said and values_of(spot).shows != "off" and spot.cells[0].effective.show != "nothing"


class _Widths(NamedTuple):
    """Widths of the box, of the cell that the picture fills, and of the one that the words are in,
    which is the same unless they stand beside it."""

    box: Floats
    area: Floats
    column: Floats


@lru_cache(maxsize=96)
def laid_out(spot: Spot) -> Laid:
    """Where everything of a banner is. Raises InvalidPlan where a margin takes the room that it
    should leave."""
    v = values_of(spot)
    widths = _widths(spot)
    block = None
    if shows_words(spot) and spot.words is not None:
        block = block_of(spot.words, spot.typeface, v, widths.column)
    own, asked = _heights(spot, widths, block)
    H = np.maximum(own, asked)
    zero = np.zeros_like(H)
    row = block.h + 2 * v.margin_px if block is not None and v.shows in ("below", "above") else 0.0
    left = widths.column if _beside(spot) and v.side == "start" else 0.0
    top = row if v.shows == "above" else 0.0
    area = Frame(zero + widths.area, H, zero + left, zero + top)
    words = None if block is None else _words_at(v, area, widths, block)
    return Laid(area, own, zero + asked, block, words, zero + widths.box, H + row)


def _beside(spot: Spot) -> bool:
    return shows_words(spot) and values_of(spot).shows == "beside"


def _widths(spot: Spot) -> _Widths:
    e, beside = spot.cells[0].effective, _beside(spot)
    box = frame_widths(e.width, spot.page_widths, spot.container)
    area = box * values_of(spot).share_percent / 100 if beside else box
    column = box - area if beside else box
    if e.show != "nothing":
        _leaves_room(spot, area)
    if beside:
        _leaves_room(spot, column, "column beside the picture")
    return _Widths(box, area, column)


def _heights(spot: Spot, widths: _Widths, block: Block | None) -> tuple[Floats, Floats]:
    """The height that the height rule gives, (heights, widths), and the one that what lies in the
    picture's cell, or beside it, asks for, (widths,)."""
    v, e = values_of(spot), spot.cells[0].effective
    heights = spot.viewports.heights
    vh = heights if depends_on_viewport_height(e.height) else heights[1:2]
    W = np.broadcast_to(widths.area, vh.shape).copy()
    own = frame_heights(e.height, W, vh, spot.cells[0].ratio)
    high = [np.zeros_like(widths.area)]
    if block is not None and v.shows in ("on", "beside"):
        high.append(block.h)
    high += [
        _lying(spot, i, widths.area)[1] for i in range(1, len(spot.cells)) if _is_there(spot, i)
    ]
    asked = np.maximum.reduce(high) + 2 * v.margin_px if len(high) > 1 else high[0]
    return own, asked


def _words_at(v: BannerValues, area: Frame, widths: _Widths, block: Block) -> Frame:
    """Where the block of words is, from the box's corner."""
    across, down = column_and_row(v.place)
    m, zero = v.margin_px, np.zeros_like(area.H)
    x = m + across * (widths.column - 2 * m - block.w)
    if v.shows == "beside" and v.side == "end":
        x = x + widths.area
    if v.shows in ("below", "above"):
        y = zero + m + (area.H if v.shows == "below" else 0.0)
    else:
        y = m + down * (area.H - 2 * m - block.h)
    return Frame(zero + block.w, zero + block.h, zero + x, y)


def _leaves_room(spot: Spot, width: Floats, where: str = "banner") -> None:
    taken = 2 * values_of(spot).margin_px
    over = np.flatnonzero(taken > width * MOST_MARGIN)
    if not over.size or not taken:
        return
    at = int(over[0])
    room, viewport = float(width[at]), int(spot.viewports.widths[at])
    raise OfLayout(
        f"A margin of {number(taken / 2)} px on both sides takes {number(taken)} of the"
        f" {number(round(room, 1))} px that the {where} has at {viewport} px, span"
        f" {spot.span.letter}: {_left(room - taken)}. Give at most"
        f" {number(int(room * MOST_MARGIN / 2))} px there, or say the width of the words as a"
        " share.",
        field="margin_px",
    )


def _left(px_: float) -> str:
    return f"{number(round(px_, 1))} px are left" if px_ > 0 else "nothing is left"


def _is_there(spot: Spot, part: int) -> bool:
    """Whether a mark or an inset takes room in a span."""
    e = spot.cells[part].effective
    return e.show != "nothing" and e.original is not None


def _lying(spot: Spot, part: int, area_w: Floats) -> tuple[Floats, Floats]:
    """Width and height of a mark or an inset, in CSS px."""
    v, cell = values_of(spot), spot.cells[part]
    if cell.role == "inset":
        _fits_in(spot, area_w)
        side = np.full_like(area_w, v.inset_px)
        return side, side
    w = np.minimum(area_w * v.mark_percent / 100, area_w - 2 * v.margin_px)
    w = np.minimum(w, v.mark_most_px)
    return w, w / cell.ratio


def _fits_in(spot: Spot, area_w: Floats) -> None:
    v = values_of(spot)
    room = float((area_w - 2 * v.margin_px).min())
    if v.inset_px > room + 1e-6:
        at = int(spot.viewports.widths[int((area_w - 2 * v.margin_px).argmin())])
        raise OfLayout(
            f"An inset of {number(v.inset_px)} px is larger than its frame: at {at} px, span"
            f" {spot.span.letter}, the banner leaves {number(round(room, 1))} px between its"
            f" margins. Give at most {number(int(room))} px.",
            field="inset_px",
        )


@known
class Banner(Layout):
    kind = "banner"
    Values = BannerValues
    has_words = True
    decorates = True
    box = "section"
    roles = frozenset(("mark", "inset"))
    colours = frozenset(("colour", "button", "box", "scrim", "strength", "inset_border"))
    most_parts = 3

    def check(self, placement: Placement) -> None:
        super().check(placement)
        roles = [p.role for p in placement.usual]
        others = self.roles & set(roles[1:])
        if roles[0] is not None or len(others) < len(roles) - 1:
            raise InvalidPlan(
                "A banner has its picture first, then at most one mark and one inset.",
                field="parts",
            )

    def begin(self, site: Site, placement: Placement) -> Placement:
        """With its name for a heading, which can be read and typed over at once."""
        narrowest = spans_of(site)[0].letter
        words = Words(heading=placement.name)
        layout = {narrowest: ON_A_PHONE}
        return placement.model_copy(update={"words": words, "layout": layout})

    def together(self, held: tuple[Effective, ...], values: Noun) -> tuple[Effective, ...]:
        """Where the banner shows nothing, nothing that lies on it does."""
        if held[0].show != "nothing":
            return held
        return tuple(replace(e, show="nothing") for e in held)

    def laid(self, spot: Spot) -> Laid:
        return laid_out(spot)

    def is_round(self, spot: Spot, part: int) -> bool:
        return spot.cells[part].role == "inset" and values_of(spot).inset_round

    def frame(self, spot: Spot, part: int) -> Frame:
        laid = laid_out(spot)
        if part == 0:
            return laid.area
        area, v = laid.area, values_of(spot)
        w, h = _lying(spot, part, area.W[0])
        is_inset = spot.cells[part].role == "inset"
        across, down = column_and_row(v.inset_place if is_inset else v.mark_place)
        m, border = v.margin_px, v.inset_border_px if is_inset else 0.0
        x = area.x + m + across * (area.W - 2 * m - w)
        y = area.y + m + down * (area.H - 2 * m - h)
        zero = np.zeros_like(area.W)
        return Frame(zero + w - 2 * border, zero + h - 2 * border, x + border, y + border)

    def handles(self, spot: Spot) -> Iterable[Handle]:
        return handles_of(spot, self)

    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        return straight_lines(spot.viewports.widths, self.frame(spot, part).W[0])

    def rules(self, spot: Spot) -> dict[str, dict[str, str]]:
        v, e = values_of(spot), spot.cells[0].effective
        widths = frame_widths(e.width, spot.page_widths, spot.container)
        fills = (widths >= spot.page_widths - 0.01).all()
        shown = shows_words(spot)
        beside, above = v.shows == "beside" and shown, v.shows == "above" and shown
        share = f"{number(v.share_percent)}%"
        columns = f"{share} minmax(0, 1fr)" if v.side == "end" else f"minmax(0, 1fr) {share}"
        cell = _cell(v, shown)
        out = {
            "": {
                "position": "relative",
                "display": "none" if e.show == "nothing" else "grid",
                "grid-template-columns": columns if beside else "minmax(0, 1fr)",
                "width": width_css(e.width, spot.container),
                "margin-inline": "0" if fills else standing_css(e.stands, e.width, spot.container),
                "background": e.background,
            },
            "::before": {
                "content": '""',
                "grid-area": cell,
                # a box with a ratio would take its width from its least height (CSS Sizing 4 §5.1)
                "width": "100%",
                "min-width": "0",
                **height_css(e.height, spot.cells[0].natural),
            },
            "-picture::after": {
                "content": '""',
                "position": "absolute",
                "inset": "0",
                "background": scrim.css(v.scrim, v.strength),
            },
        }
        if spot.words is None or spot.words.empty:
            return out
        across, down = column_and_row(v.place)
        said = css_rules(spot.typeface, v, spot.level)
        place = {
            "display": "block" if shown else "none",
            "position": "relative",
            "z-index": "1",
            "grid-area": _words_cell(v),
            "justify-self": _SELF[across],
            "align-self": "start" if above or v.shows == "below" else _SELF[down],
        }
        out["-words"] = {**place, **said.pop("")}
        return out | {f"-words{rest}": declarations for rest, declarations in said.items()}

    def words_lie_on(self, spot: Spot) -> bool:
        return shows_words(spot) and values_of(spot).shows == "on"

    def words_below(self) -> dict[str, JsonValue]:
        return {"shows": "below", "percent": 100}

    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        v, e = values_of(spot), spot.cells[part].effective
        cell = _cell(v, shows_words(spot))
        if part == 0:
            # for what is positioned, a cell without its ends would reach to the edge of the box
            # (CSS Grid 1 §9)
            row, column = (int(n) for n in cell.split(" / "))
            cell = f"{cell} / {row + 1} / {column + 1}"
            return {
                "display": "none" if e.show == "nothing" else "block",
                "position": "absolute",
                "inset": "0",
                "grid-area": cell,
                "background": e.background,
            }
        is_inset = spot.cells[part].role == "inset"
        across, down = column_and_row(v.inset_place if is_inset else v.mark_place)
        w, h = spot.cells[part].natural
        place = {
            "display": "block" if _is_there(spot, part) else "none",
            "grid-area": cell,
            "z-index": "1",
            "justify-self": _SELF[across],
            "align-self": _SELF[down],
            "margin": px(v.margin_px),
        }
        if not is_inset:
            return {
                **place,
                "width": f"min({number(v.mark_percent)}%, {px(v.mark_most_px)})",
                "max-width": f"calc(100% - {px(2 * v.margin_px)})",
                "aspect-ratio": f"{w} / {h}",
            }
        border = v.inset_border_px
        return {
            **place,
            "box-sizing": "border-box",
            "width": px(v.inset_px),
            "aspect-ratio": "1 / 1",
            "border-radius": "50%" if v.inset_round else "0",
            "border": f"{px(border)} solid {v.inset_border}" if border else "0",
        }


_SELF = {0.0: "start", 0.5: "center", 1.0: "end"}


def _words_cell(v: BannerValues) -> str:
    """The grid's cell that the words stand in, as row / column."""
    if v.shows == "below":
        return "2 / 1"
    return "1 / 2" if v.shows == "beside" and v.side == "end" else "1 / 1"


def _cell(v: BannerValues, words: bool) -> str:
    """The grid's cell that the picture fills, as row / column."""
    if words and v.shows == "above":
        return "2 / 1"
    if words and v.shows == "beside" and v.side == "start":
        return "1 / 2"
    return "1 / 1"
