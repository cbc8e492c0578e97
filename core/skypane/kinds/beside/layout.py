"""Pictures with text beside them: the kind, where its pictures are, and its CSS.

A screen reader reads picture and text in one order at every width: the one in which they stand on
the narrowest screens (WCAG 2.2, 1.3.2), where they are most often one above the other.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from typing import cast

import numpy as np
from pydantic import JsonValue

from skypane.kinds.beside.handles import handles_of
from skypane.kinds.beside.values import BesideValues
from skypane.layouts import Frame, Handle, Many, OfLayout, Spot, known
from skypane.model import Item, Placement, Site
from skypane.numerals import number, px
from skypane.widths.frame_css import height_css, standing_css, width_css
from skypane.widths.frames import (
    Floats,
    Piece,
    frame_widths,
)
from skypane.widths.lines import straight_lines
from skypane.widths.spans import spans_of
from skypane.widths.sums import figure
from skypane.words.caption import (
    TEXT_LINE,
    TEXT_WEIGHT,
    TITLE_LINE,
    TITLE_WEIGHT,
    caption_heights,
    caption_texts,
)
from skypane.words.fallbacks import css_family

#: Between a title and its text, in CSS px.
UNDER_TITLE_PX = 8.0
#: Text in less room than this has hardly a word in a line (common practice).
LEAST_TEXT_PX = 160.0


def values_of(spot: Spot) -> BesideValues:
    return cast(BesideValues, spot.values)


def cells_of(spot: Spot) -> Floats:
    """The width of each picture with its text, in CSS px. Raises InvalidPlan where the gutters
    leave none."""
    v = values_of(spot)
    box = frame_widths(spot.cells[0].effective.width, spot.page_widths, spot.container)
    content = box - 2 * v.margin_px
    cell = (content - (v.columns - 1) * v.gutter_px) / v.columns
    narrow = np.flatnonzero(cell * v.share_percent / 100 < 1)
    if narrow.size and spot.shown:
        at = int(narrow[0])
        taken = (v.columns - 1) * v.gutter_px + 2 * v.margin_px
        raise OfLayout(
            f"{v.columns} in a row do not fit at {int(spot.viewports.widths[at])} px, span"
            f" {spot.span.letter}: gutters and margin take {number(round(taken, 2))} of"
            f" {number(round(float(box[at]), 1))} px. Take fewer there, or less between them.",
            field="columns" if v.columns > 1 else "margin_px",
        )
    return cell


def text_rooms(spot: Spot) -> Floats:
    """The width that a text has, in CSS px, (widths,); below 0 where there is none."""
    v, cell = values_of(spot), cells_of(spot)
    return cell if v.is_stacked else cell * (1 - v.share_percent / 100) - v.between_px


def text_heights(item: Item | None, spot: Spot, rooms: Floats) -> Floats:
    """The height of a text in rooms of these widths, in CSS px."""
    high = caption_heights(item, spot.typeface, values_of(spot), rooms)
    return high + (UNDER_TITLE_PX if all(caption_texts(item, values_of(spot))) else 0.0)


def is_at_end(v: BesideValues, at: int) -> bool:
    """Whether the picture of the item in this place stands at the end of its row."""
    return v.side == "end" or (v.side == "alternate" and at % 2 == 1)


@known
class Beside(Many):
    kind = "beside"
    Values = BesideValues
    width_word = "Picture width"
    box = "div"
    cell = "div"
    one, all_ = "picture", "row of pictures"

    def begin(self, site: Site, placement: Placement) -> Placement:
        """One above the other where it is narrow, side by side above that; with its name for a
        title."""
        spans = spans_of(site)
        layout: dict[str, dict[str, JsonValue]] = {}
        if len(spans) > 1:
            layout = {spans[0].letter: {"share_percent": 100, "between_px": 16, "margin_px": 16}}
            layout[spans[-1].letter] = {"margin_px": 24}
        made = super().begin(site, placement).model_copy(update={"layout": layout})
        if any(p.item and p.item.has_caption for p in made.parts):
            return made
        first = made.parts[0].model_copy(update={"item": Item(title=placement.name)})
        return made.with_part(0, first)

    def word(self, spot: Spot) -> str:
        v = values_of(spot)
        share = f"{number(v.share_percent)} % of the row"
        where = "below" if v.stacked == "above" else "above"
        text = f"text {where}" if v.is_stacked else share
        return f"{v.columns} in a row, {text}" if v.columns > 1 else text

    def notes(self, spot: Spot) -> tuple[str, ...]:
        v, room = values_of(spot), text_rooms(spot)
        if v.is_stacked or not spot.shown:
            return ()
        least = int(room.argmin())
        at = int(spot.viewports.widths[least])
        return (f"The text has {round(float(room[least]))} px at {at} px, its least here.",)

    def frame(self, spot: Spot, part: int) -> Frame:
        return self.frames(spot)[part]

    def frames(self, spot: Spot) -> Sequence[Frame]:
        v, cell, rooms = values_of(spot), cells_of(spot), text_rooms(spot)
        W = cell * v.share_percent / 100
        zero = np.zeros((1, len(cell)))
        out = [Frame(zero, zero, zero, zero)] * len(spot.cells)
        top: Floats = np.full_like(cell, v.margin_px)
        row: list[Floats] = []
        for at, i in enumerate(spot.shown):
            if at % v.columns == 0 and row:
                top, row = top + np.maximum.reduce(row) + v.gutter_px, []
            H = spot.frame_heights(i, W)
            text = text_heights(spot.cells[i].item, spot, np.maximum(rooms, 1.0))
            x = v.margin_px + at % v.columns * (cell + v.gutter_px)
            y = top
            if v.is_stacked:
                under = np.where(text > 0, text + v.between_px, 0.0)
                y = y + (under if v.stacked == "below" else 0.0)
                row.append(H.max(axis=0) + under)
            else:
                x = x + (cell - W if is_at_end(v, at) else 0.0)
                row.append(np.maximum(H.max(axis=0), text))
                y = y + _LOW[v.align] * (row[-1] - H.max(axis=0))
            out[i] = Frame(np.broadcast_to(W, H.shape), H, x + 0 * H, y + 0 * H)
        return out

    def handles(self, spot: Spot) -> Iterable[Handle]:
        return handles_of(spot, self.frames)

    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        return straight_lines(spot.viewports.widths, self.frame(spot, part).W[0])

    def width_sum(self, spot: Spot, part: int, viewport_px: float) -> str:
        v, sums = values_of(spot), [super().width_sum(spot, part, viewport_px)]
        at = np.array([viewport_px - spot.scrollbar_px])
        cell = float(frame_widths(spot.cells[0].effective.width, at, spot.container)[0])
        taken = 2 * v.margin_px + (v.columns - 1) * v.gutter_px
        if taken or v.columns > 1:
            whole = f"({figure(cell)} − {figure(taken)})" if taken else figure(cell)
            cell = (cell - taken) / v.columns
            sums.append(f"{whole}/{v.columns} = {figure(cell)}")
        if not v.is_stacked:
            share = cell * v.share_percent / 100
            sums.append(f"{figure(v.share_percent)} % of {figure(cell)} = {figure(share)}")
        return "; ".join(sums)

    def rules(self, spot: Spot) -> dict[str, dict[str, str]]:
        v, e = values_of(spot), spot.cells[0].effective
        widths = frame_widths(e.width, spot.page_widths, spot.container)
        fills = (widths >= spot.page_widths - 0.01).all()
        share, whole = f"{number(v.share_percent)}%", "minmax(0, 1fr)"

        def columns(at: int) -> dict[str, str]:
            if v.is_stacked:
                return {"grid-template-columns": whole}
            end = is_at_end(v, at)
            return {"grid-template-columns": f"{whole} {share}" if end else f"{share} {whole}"}

        def area(at: int, is_picture: bool) -> dict[str, str]:
            if v.is_stacked:
                return {"grid-area": f"{1 if (v.stacked == 'above') == is_picture else 2} / 1"}
            return {"grid-area": f"1 / {1 if is_at_end(v, at) != is_picture else 2}"}

        return {
            "": {
                "box-sizing": "border-box",
                "display": "grid" if spot.shown else "none",
                "grid-template-columns": f"repeat({v.columns}, minmax(0, 1fr))",
                "align-items": "start",
                "gap": px(v.gutter_px),
                "width": width_css(e.width, spot.container),
                "margin-inline": "0" if fills else standing_css(e.stands, e.width, spot.container),
                "padding": px(v.margin_px),
            },
            **{
                f" > :nth-child({i + 1})": {
                    "--as": "none" if c.effective.show == "nothing" else "grid"
                }
                for i, c in enumerate(spot.cells)
            },
            " > div": {
                "display": "var(--as, grid)",
                **columns(0),
                "column-gap": px(v.between_px),
                "row-gap": px(v.between_px) if v.is_stacked else "0",
                "align-items": {"centre": "center"}.get(v.align, v.align),
            },
            " > div > picture": area(0, True),
            " > div > div": {**area(0, False), **_text_box_css(spot)},
            " > div:nth-child(2n)": columns(1),
            " > div:nth-child(2n) > picture": area(1, True),
            " > div:nth-child(2n) > div": area(1, False),
            **_text_css(spot),
        }

    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        e = spot.cells[part].effective
        return {
            "display": "none" if e.show == "nothing" else "block",
            "width": "100%",
            **height_css(e.height, spot.cells[part].natural),
            "background": e.background,
        }


#: Which share of the room beside a picture lies above it.
_LOW = {"start": 0.0, "centre": 0.5, "end": 1.0}


def _text_box_css(spot: Spot) -> dict[str, str]:
    return {
        "display": "none" if values_of(spot).captions == "none" else "block",
        "min-width": "0",
        "font-family": css_family(spot.typeface),
        "overflow-wrap": "anywhere",
        "text-rendering": "geometricPrecision",
        "-webkit-text-size-adjust": "100%",
        "text-size-adjust": "100%",
    }


def _text_css(spot: Spot) -> dict[str, dict[str, str]]:
    v, title = values_of(spot), f"h{spot.level}"

    def type_(size_px: float, weight: int, line: float) -> dict[str, str]:
        return {
            "font-size": px(size_px),
            "font-weight": str(weight),
            "line-height": number(line),
            "white-space": "pre-line",
        }

    return {
        f" {title}": {"margin": "0", **type_(v.title_px, TITLE_WEIGHT, TITLE_LINE)},
        f" {title} a": {"color": "inherit"},
        f" {title} + p": {"margin": f"{px(UNDER_TITLE_PX)} 0 0"},
        " p": {
            "margin": "0",
            "display": "block" if v.captions == "all" else "none",
            **type_(v.caption_px, TEXT_WEIGHT, TEXT_LINE),
        },
    }
