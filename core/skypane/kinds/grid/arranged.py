"""Where the items of a grid are at every width: cells of columns, justified rows, masonry, a row
each, or turned sideways.

What breaks and what goes to which column is worked out once per span, at its middle width, and
holds for all of it: so the CSS of a span is a few straight lines, and reading order stays that of
the items.
"""

import math
from typing import NamedTuple, cast

import numpy as np

from skypane.galleries.columns import equal_cells
from skypane.galleries.justified import broken_into_rows
from skypane.galleries.masonry import put_into_columns
from skypane.kinds.grid.values import GridValues
from skypane.layouts import Facts, Frame, OfLayout, Spot
from skypane.model import HeightRule, RatioHeight
from skypane.numerals import number, px
from skypane.values import once
from skypane.widths.frames import (
    Floats,
    frame_widths,
)
from skypane.words.caption import ABOVE_PX, caption_heights, caption_texts

#: A justified row is laid this much narrower per item and grows into what is left, so that its
#: rounded widths never wrap (CSS Flexbox 1 §9.7).
_GIVE_PX = 0.05


def values_of(spot: Spot) -> GridValues:
    return cast(GridValues, spot.values)


class Place(NamedTuple):
    """Where an item stands in its span, as CSS values of its cell."""

    column: str = "auto"
    row: str = "auto"
    margin_top: str = "0"
    width: str = "auto"
    flex: str = "none"


class Laid(NamedTuple):
    """A grid at every viewport of a span. `frames` and `places` by item; None where it does not
    show. `n` is how many columns there are."""

    frames: tuple[Frame | None, ...]
    places: tuple[Place | None, ...]
    n: int
    cell: Floats
    frame: Floats


def waiting_items(spot: Spot) -> list[int]:
    """The items that show only once more is asked for."""
    v = values_of(spot)
    return [] if v.is_turned or not v.first else spot.shown[v.first :]


def turned_stops(spot: Spot) -> int:
    """How many pages a row has that is turned sideways: as many items show at a time as there are
    columns, or as a page holds. 0 where it is not turned."""
    v = values_of(spot)
    if not v.is_turned:
        return 0
    on_page = v.page_of if v.arranged == "pages" else v.columns
    return math.ceil(len(spot.shown) / on_page)


def columns_of(v: GridValues) -> int:
    return 1 if v.arranged in ("list", "rows", "hidden") else v.columns


def is_wide(spot: Spot, i: int) -> bool:
    """Whether an item takes two columns in a span."""
    item, v = spot.cells[i].item, values_of(spot)
    return bool(item and item.wide and v.arranged == "cells" and v.columns > 1)


def content_widths(spot: Spot) -> Floats:
    """What the box has between its outer margins, in CSS px."""
    box = frame_widths(spot.cells[0].effective.width, spot.page_widths, spot.container)
    return box - 2 * values_of(spot).margin_px


class Padding(NamedTuple):
    """The padding of cells as share·(a width) + constant px."""

    share: float
    constant: float

    def of(self, widths: Floats) -> Floats:
        return widths * self.share + self.constant


def padding_of(spot: Spot) -> Padding:
    """The padding of cells, of the width of the content."""
    v = values_of(spot)
    share = v.padding_percent / 100
    return Padding(share, 0.0) if share else Padding(0.0, v.padding_px)


def padding_in_column(spot: Spot) -> Padding:
    """The padding of cells, of the width of a column: what a percentage refers to in a grid (CSS
    Grid 1 §6)."""
    v, n, of = values_of(spot), columns_of(values_of(spot)), padding_of(spot)
    return Padding(of.share * n, of.share * (n - 1) * v.gutter_px + of.constant)


def laid_out(spot: Spot) -> Laid:
    """Where every item is. Raises InvalidPlan where gutters and padding leave no picture."""
    return _laid_out(spot.facts)


@once
def _laid_out(facts: Facts) -> Laid:
    spot = facts.spot
    v = values_of(spot)
    content, n = content_widths(spot), columns_of(v)
    cells = equal_cells(content, n, v.gutter_px, padding_of(spot).of(content))
    _leaves_room(spot, content, n, cells.frame)
    if v.arranged == "justified":
        frames, places = _justified(spot, content)
    elif v.arranged == "masonry":
        frames, places = _masonry(spot, cells.cell, cells.frame)
    elif v.is_turned:
        frames, places = _turned(spot, content, cells.cell, cells.frame)
    else:
        frames, places = _celled(spot, cells.cell, cells.frame)
    return Laid(frames, places, n, cells.cell, cells.frame)


def _leaves_room(spot: Spot, content: Floats, n: int, frame: Floats) -> None:
    narrow = np.flatnonzero(frame < 1)
    if not narrow.size or not spot.shown:
        return
    v, at = values_of(spot), int(narrow[0])
    padding = float(padding_of(spot).of(content)[at])
    taken = (n - 1) * v.gutter_px + 2 * n * padding
    whole = float(content[at]) + 2 * v.margin_px
    margin = f", the outer margin {number(2 * v.margin_px)}" if v.margin_px else ""
    raise OfLayout(
        f"{n} columns do not fit at {int(spot.viewports.widths[at])} px, span {spot.span.letter}:"
        f" gutters and padding take {number(round(taken, 2))} px{margin}, and the grid is"
        f" {number(round(whole, 1))} px wide. Take fewer columns there, or less between them.",
        field="columns" if n > 1 else _padding_field(v) if padding else "margin_px",
    )


def _padding_field(v: GridValues) -> str:
    return "padding_percent" if v.padding_percent else "padding_px"


def _caption(spot: Spot, i: int, room: Floats) -> Floats:
    """The room that a caption takes under its picture, (widths,)."""
    h = caption_heights(spot.cells[i].item, spot.typeface, values_of(spot), room)
    return np.where(h > 0, h + ABOVE_PX, 0.0)


Found = tuple[tuple[Frame | None, ...], tuple[Place | None, ...]]


def _celled(spot: Spot, cell: Floats, frame: Floats) -> Found:
    """Cells of columns, row by row in the items' order; one that is two columns wide and no longer
    fits goes to the next row (CSS Grid 1 §8.5, sparse)."""
    v, n = values_of(spot), columns_of(values_of(spot))
    padding = (cell - frame) / 2
    frames: list[Frame | None] = [None] * len(spot.cells)
    places: list[Place | None] = [None] * len(spot.cells)
    known_heights: dict[tuple[HeightRule, float], Floats] = {}
    beside = v.arranged == "rows"
    picture = frame * v.share_percent / 100 if beside else frame
    top: Floats = np.full_like(frame, v.margin_px)
    high: list[Floats] = []
    column = 0
    for i in spot.shown:
        take = 2 if is_wide(spot, i) else 1
        if column + take > n:
            top, high, column = top + np.maximum.reduce(high) + v.gutter_px, [], 0
        e = spot.cells[i].effective
        key = (e.height, spot.cells[i].ratio)
        if key not in known_heights:
            known_heights[key] = spot.frame_heights(i, picture)
        H = known_heights[key]
        W = picture + (cell + v.gutter_px) * (take - 1)
        if take > 1 and not isinstance(e.height, RatioHeight):
            H = spot.frame_heights(i, W)
        x = v.margin_px + column * (cell + v.gutter_px) + padding
        frames[i] = Frame(np.broadcast_to(W, H.shape), H, x + 0 * H, top + padding + 0 * H)
        places[i] = Place(column=f"span {take}" if take > 1 else "auto")
        if beside:
            under = caption_heights(
                spot.cells[i].item, spot.typeface, v, frame - picture - BESIDE_PX
            )
            high.append(np.maximum(H, under) + 2 * padding)
        else:
            high.append(H + _caption(spot, i, W) + 2 * padding)
        column += take
    return tuple(frames), tuple(places)


#: Room between a picture and the caption beside it, in CSS px.
BESIDE_PX = 16.0


def _justified(spot: Spot, content: Floats) -> Found:
    """Rows that go for `columns` pictures of the items' mean ratio each."""
    v, items = values_of(spot), spot.shown
    frames: list[Frame | None] = [None] * len(spot.cells)
    places: list[Place | None] = [None] * len(spot.cells)
    if not items:
        return tuple(frames), tuple(places)
    ratios = np.array([spot.cells[i].ratio for i in items])
    mean, padded = float(ratios.mean()), padding_of(spot)

    def between(room: Floats) -> Floats:
        return v.gutter_px + 2 * padded.of(room)

    # what pictures alone have, were every row one of `columns`
    def high(room: Floats) -> Floats:
        return (room - v.columns * between(room) + v.gutter_px) / (v.columns * mean)

    target, middle = high(content), len(content) // 2
    usual = content_widths(spot.unscrolled)[middle : middle + 1]
    holder = float(usual[0] - 2 * padded.of(usual)[0])
    rows = broken_into_rows(ratios, holder, float(between(usual)[0]), float(high(usual)[0]))
    padding = padded.of(content)
    top: Floats = np.full_like(content, v.margin_px)
    for row in rows:
        k, mine = row.last - row.first, ratios[row.first : row.last]
        taken = k * between(content) - v.gutter_px
        height = (content - taken) / mine.sum() if row.filled else target
        x: Floats = np.full_like(content, v.margin_px)
        under = np.zeros_like(content)
        for i, ratio in zip(items[row.first : row.last], mine, strict=True):
            W = height * ratio
            one = np.ones((1, 1))
            frames[i] = Frame(W * one, height * one, (x + padding) * one, (top + padding) * one)
            share = ratio / mine.sum() if row.filled else ratio / (v.columns * mean)
            places[i] = _in_row(v, padded, k if row.filled else None, float(ratio), float(share))
            under = np.maximum(under, _caption(spot, i, W))
            x = x + W + between(content)
        top = top + height + under + 2 * padding + v.gutter_px
    return tuple(frames), tuple(places)


def _in_row(
    v: GridValues, padding: Padding, filled: int | None, ratio: float, share: float
) -> Place:
    """A cell in its row: the share of what gutters and padding leave, and its own padding. `filled`
    is how many fill the row; None where they do not."""
    n, (of, px_) = filled or v.columns, padding
    whole = share * (1 - 2 * n * of) + 2 * of
    rest = -share * ((n - 1) * v.gutter_px + 2 * n * px_) + 2 * px_
    if filled:
        width = line_css(whole, rest - _GIVE_PX)
        return Place(width=width, flex=f"{number(round(ratio, 6))} 0 auto")
    return Place(width=line_css(whole, rest), flex="0 0 auto")


def line_css(share: float, constant: float) -> str:
    """share·100 % + constant as a length."""
    percent = f"{number(round(share * 100, 6))}%"
    rest = round(constant, 4)
    if not rest:
        return percent
    return f"calc({percent} {'+' if rest > 0 else '-'} {px(abs(rest))})"


def _masonry(spot: Spot, cell: Floats, frame: Floats) -> Found:
    """Every item in the one row of its column, as far down as what stands above it is high. A
    percentage margin refers to the width of the column (CSS Box 3 §3)."""
    v, items = values_of(spot), spot.shown
    frames: list[Frame | None] = [None] * len(spot.cells)
    places: list[Place | None] = [None] * len(spot.cells)
    middle, padding = len(frame) // 2, (cell - frame) / 2
    ratios = np.array([spot.cells[i].ratio for i in items])
    usual = equal_cells(
        content_widths(spot.unscrolled)[middle : middle + 1],
        v.columns,
        v.gutter_px,
        padding_of(spot).of(content_widths(spot.unscrolled)[middle : middle + 1]),
    )
    padded = float(usual.cell[0] - usual.frame[0])
    captions = np.array([_fixed_caption(spot, i) for i in items])
    put = put_into_columns(ratios, v.columns, float(usual.frame[0]), v.gutter_px, padded + captions)
    of, px_ = padding_in_column(spot)
    one = np.ones((1, 1))
    for i, ratio, p in zip(items, ratios, put, strict=True):
        fixed = p.above_px - p.items * padded + p.items * v.gutter_px
        top = v.margin_px + p.above * frame + p.items * 2 * padding + fixed
        x = v.margin_px + p.column * (cell + v.gutter_px) + padding
        frames[i] = Frame(frame * one, frame / ratio * one, x * one, (top + padding) * one)
        share, rest = p.above * (1 - 2 * of) + 2 * of * p.items, 2 * px_ * (p.items - p.above)
        places[i] = Place(
            column=str(p.column + 1),
            row="1",
            margin_top=line_css(share, fixed + rest),
        )
    return tuple(frames), tuple(places)


def _fixed_caption(spot: Spot, i: int) -> float:
    """In columns of their own heights every line of a caption is one that does not wrap."""
    v = values_of(spot)
    title, text = caption_texts(spot.cells[i].item, v)
    room = np.array([1e6])
    return float(_caption(spot, i, room)[0]) if title or text else 0.0


def _turned(spot: Spot, content: Floats, cell: Floats, frame: Floats) -> Found:
    """Side by side, beyond the end of the box; on pages row by row."""
    v, items = values_of(spot), spot.shown
    n, padding = v.columns, (cell - frame) / 2
    on_page = v.page_of if v.arranged == "pages" else n
    frames: list[Frame | None] = [None] * len(spot.cells)
    places: list[Place | None] = [None] * len(spot.cells)
    heights = {i: spot.frame_heights(i, frame) for i in items}
    captions = {i: _caption(spot, i, frame) for i in items}
    in_rows: dict[int, list[Floats]] = {}
    cells: dict[int, tuple[int, int]] = {}
    for at, i in enumerate(items):
        page, j = divmod(at, on_page)
        row, column = (j // n, page * n + j % n) if v.arranged == "pages" else (0, at)
        cells[i] = (row, column)
        in_rows.setdefault(row, []).append(heights[i] + captions[i] + 2 * padding)
    tops, top = {}, np.full_like(frame, v.margin_px)
    for row in sorted(in_rows):
        tops[row] = top
        top = top + np.maximum.reduce(in_rows[row]) + v.gutter_px
    for i in items:
        (row, column), H = cells[i], heights[i]
        x = v.margin_px + column * (cell + v.gutter_px) + padding
        frames[i] = Frame(
            np.broadcast_to(frame, H.shape), H, x + 0 * H, tops[row] + padding + 0 * H
        )
        is_paged = v.arranged == "pages"
        places[i] = Place(str(column + 1), str(row + 1)) if is_paged else Place()
    return tuple(frames), tuple(places)
