"""Many pictures in one spot: cells of columns, justified rows, masonry, a row each, or turned
sideways.

What breaks and what goes to which column is worked out once per span, at its middle width, and
holds for all of it: so the CSS of a span is a few straight lines, and reading order stays that of
the items.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from functools import lru_cache
from typing import NamedTuple, cast

import numpy as np
from pydantic import JsonValue

from skypane.errors import InvalidPlan
from skypane.galleries.columns import equal_cells
from skypane.galleries.justified import broken_into_rows
from skypane.galleries.masonry import put_into_columns
from skypane.layouts.layout import Frame, Layout, OfLayout, Spot, known
from skypane.model import (
    MOST_PARTS,
    OWN_RATIOS,
    GridValues,
    HeightRule,
    Item,
    Placement,
    RatioHeight,
    Site,
    Treatment,
    Treatments,
)
from skypane.numerals import number, px
from skypane.treatments import OF_FRAME, Effective, own_values
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
from skypane.widths.sums import said as said_px
from skypane.words.caption import ABOVE_PX, caption_css, caption_heights, said

#: Fields of a treatment that are of the grid and not of its items.
OF_ALL = ("width", "stands")
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


def shown_items(spot: Spot) -> list[int]:
    return [i for i, c in enumerate(spot.cells) if c.effective.show != "nothing"]


def waiting_items(spot: Spot) -> list[int]:
    """The items that show only once more is asked for."""
    v = values_of(spot)
    return [] if v.is_turned or not v.first else shown_items(spot)[v.first :]


def columns_of(v: GridValues) -> int:
    return 1 if v.arranged in ("list", "rows", "hidden") else v.columns


def is_wide(spot: Spot, i: int) -> bool:
    """Whether an item takes two columns in a span."""
    item, v = spot.cells[i].item, values_of(spot)
    return bool(item and item.wide and v.arranged == "cells" and v.columns > 1)


def content_widths(spot: Spot) -> Floats:
    """What the box has between its outer margins, in CSS px."""
    box = frame_widths(spot.cells[0].effective.width, spot.viewports.widths, spot.container)
    return box - 2 * values_of(spot).margin_px


@lru_cache(maxsize=96)
def laid_out(spot: Spot) -> Laid:
    """Where every item is. Raises InvalidPlan where gutters and padding leave no picture."""
    v = values_of(spot)
    content, n = content_widths(spot), columns_of(v)
    cells = equal_cells(content, n, v.gutter_px, v.padding_px)
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
    if not narrow.size or not shown_items(spot):
        return
    v, at = values_of(spot), int(narrow[0])
    taken = (n - 1) * v.gutter_px + 2 * n * v.padding_px
    whole = float(content[at]) + 2 * v.margin_px
    margin = f", the outer margin {number(2 * v.margin_px)}" if v.margin_px else ""
    raise OfLayout(
        f"{n} columns do not fit at {int(spot.viewports.widths[at])} px, span {spot.span.letter}:"
        f" gutters and padding take {number(round(taken, 2))} px{margin}, and the grid is"
        f" {number(round(whole, 1))} px wide. Take fewer columns there, or less between them.",
        field="columns" if n > 1 else "padding_px" if v.padding_px else "margin_px",
    )


def _heights(spot: Spot, i: int, frame: Floats) -> Floats:
    """The height of an item's frame by its height rule, (heights, widths)."""
    e, ratio = spot.cells[i].effective, spot.cells[i].ratio
    heights = spot.viewports.heights
    vh = heights if depends_on_viewport_height(e.height) else heights[1:2]
    return frame_heights(e.height, np.broadcast_to(frame, vh.shape), vh, ratio)


def _caption(spot: Spot, i: int, room: Floats) -> Floats:
    """The room that a caption takes under its picture, (widths,)."""
    h = caption_heights(spot.cells[i].item, spot.typeface, values_of(spot), room)
    return np.where(h > 0, h + ABOVE_PX, 0.0)


Found = tuple[tuple[Frame | None, ...], tuple[Place | None, ...]]


def _celled(spot: Spot, cell: Floats, frame: Floats) -> Found:
    """Cells of columns, row by row in the items' order; one that is two columns wide and no longer
    fits goes to the next row (CSS Grid 1 §8.5, sparse)."""
    v, n = values_of(spot), columns_of(values_of(spot))
    frames: list[Frame | None] = [None] * len(spot.cells)
    places: list[Place | None] = [None] * len(spot.cells)
    known_heights: dict[tuple[HeightRule, float], Floats] = {}
    beside = v.arranged == "rows"
    picture = frame * v.share_percent / 100 if beside else frame
    top: Floats = np.full_like(frame, v.margin_px)
    high: list[Floats] = []
    column = 0
    for i in shown_items(spot):
        take = 2 if is_wide(spot, i) else 1
        if column + take > n:
            top, high, column = top + np.maximum.reduce(high) + v.gutter_px, [], 0
        e = spot.cells[i].effective
        key = (e.height, spot.cells[i].ratio)
        if key not in known_heights:
            known_heights[key] = _heights(spot, i, picture)
        H = known_heights[key]
        W = picture + (cell + v.gutter_px) * (take - 1)
        if take > 1 and not isinstance(e.height, RatioHeight):
            H = _heights(spot, i, W)
        x = v.margin_px + column * (cell + v.gutter_px) + v.padding_px
        frames[i] = Frame(np.broadcast_to(W, H.shape), H, x + 0 * H, top + v.padding_px + 0 * H)
        places[i] = Place(column=f"span {take}" if take > 1 else "auto")
        if beside:
            under = caption_heights(spot.cells[i].item, spot.typeface, v, frame - picture - _BESIDE)
            high.append(np.maximum(H, under) + 2 * v.padding_px)
        else:
            high.append(H + _caption(spot, i, W) + 2 * v.padding_px)
        column += take
    return tuple(frames), tuple(places)


#: Room between a picture and the caption beside it, in CSS px.
_BESIDE = 16.0


def _justified(spot: Spot, content: Floats) -> Found:
    """Rows that go for `columns` pictures of the items' mean ratio each."""
    v, items = values_of(spot), shown_items(spot)
    frames: list[Frame | None] = [None] * len(spot.cells)
    places: list[Place | None] = [None] * len(spot.cells)
    if not items:
        return tuple(frames), tuple(places)
    ratios = np.array([spot.cells[i].ratio for i in items])
    between, mean = v.gutter_px + 2 * v.padding_px, float(ratios.mean())
    # what pictures alone have, were every row one of `columns`
    target = (content - v.columns * between + v.gutter_px) / (v.columns * mean)
    middle = len(content) // 2
    holder = float(content[middle]) - 2 * v.padding_px
    rows = broken_into_rows(ratios, holder, between, float(target[middle]))
    top: Floats = np.full_like(content, v.margin_px)
    for row in rows:
        k, mine = row.last - row.first, ratios[row.first : row.last]
        taken = k * between - v.gutter_px
        height = (content - taken) / mine.sum() if row.filled else target
        x: Floats = np.full_like(content, v.margin_px)
        under = np.zeros_like(content)
        for i, ratio in zip(items[row.first : row.last], mine, strict=True):
            W = height * ratio
            one = np.ones((1, 1))
            frames[i] = Frame(
                W * one, height * one, (x + v.padding_px) * one, (top + v.padding_px) * one
            )
            places[i] = _in_row(v, row.filled, float(ratio), float(mine.sum()), taken, mean)
            under = np.maximum(under, _caption(spot, i, W))
            x = x + W + between
        top = top + height + under + 2 * v.padding_px + v.gutter_px
    return tuple(frames), tuple(places)


def _in_row(
    v: GridValues, filled: bool, ratio: float, row_ratio: float, taken: float, mean: float
) -> Place:
    """A cell in its row: the share of what gutters and padding leave, and its own padding."""
    if filled:
        share, rest = ratio / row_ratio, -taken * ratio / row_ratio + 2 * v.padding_px - _GIVE_PX
        return Place(width=_line_css(share, rest), flex=f"{number(round(ratio, 6))} 0 auto")
    share = ratio / (v.columns * mean)
    rest = -(v.columns * (v.gutter_px + 2 * v.padding_px) - v.gutter_px) * share + 2 * v.padding_px
    return Place(width=_line_css(share, rest), flex="0 0 auto")


def _line_css(share: float, constant: float) -> str:
    """share·100 % + constant as a length."""
    percent = f"{number(round(share * 100, 6))}%"
    rest = round(constant, 4)
    if not rest:
        return percent
    return f"calc({percent} {'+' if rest > 0 else '-'} {px(abs(rest))})"


def _masonry(spot: Spot, cell: Floats, frame: Floats) -> Found:
    """Every item in the one row of its column, as far down as what stands above it is high. A
    percentage margin refers to the width of the column (CSS Box 3 §3)."""
    v, items = values_of(spot), shown_items(spot)
    frames: list[Frame | None] = [None] * len(spot.cells)
    places: list[Place | None] = [None] * len(spot.cells)
    middle = len(frame) // 2
    ratios = np.array([spot.cells[i].ratio for i in items])
    other = np.array([2 * v.padding_px + _fixed_caption(spot, i) for i in items])
    put = put_into_columns(ratios, v.columns, float(frame[middle]), v.gutter_px, other)
    one = np.ones((1, 1))
    for i, ratio, p in zip(items, ratios, put, strict=True):
        constant = p.above_px + p.items * v.gutter_px
        top = v.margin_px + p.above * frame + constant
        x = v.margin_px + p.column * (cell + v.gutter_px) + v.padding_px
        frames[i] = Frame(frame * one, frame / ratio * one, x * one, (top + v.padding_px) * one)
        places[i] = Place(
            column=str(p.column + 1),
            row="1",
            margin_top=_line_css(p.above, constant - 2 * v.padding_px * p.above),
        )
    return tuple(frames), tuple(places)


def _fixed_caption(spot: Spot, i: int) -> float:
    """In columns of their own heights every line of a caption is one that does not wrap."""
    v = values_of(spot)
    title, text = said(spot.cells[i].item, v)
    room = np.array([1e6])
    return float(_caption(spot, i, room)[0]) if title or text else 0.0


def _turned(spot: Spot, content: Floats, cell: Floats, frame: Floats) -> Found:
    """Side by side, beyond the end of the box; on pages row by row."""
    v, items = values_of(spot), shown_items(spot)
    n = v.columns
    on_page = v.page_of if v.arranged == "pages" else n
    frames: list[Frame | None] = [None] * len(spot.cells)
    places: list[Place | None] = [None] * len(spot.cells)
    heights = {i: _heights(spot, i, frame) for i in items}
    captions = {i: _caption(spot, i, frame) for i in items}
    in_rows: dict[int, list[Floats]] = {}
    cells: dict[int, tuple[int, int]] = {}
    for at, i in enumerate(items):
        page, j = divmod(at, on_page)
        row, column = (j // n, page * n + j % n) if v.arranged == "pages" else (0, at)
        cells[i] = (row, column)
        in_rows.setdefault(row, []).append(heights[i] + captions[i] + 2 * v.padding_px)
    tops, top = {}, np.full_like(frame, v.margin_px)
    for row in sorted(in_rows):
        tops[row] = top
        top = top + np.maximum.reduce(in_rows[row]) + v.gutter_px
    for i in items:
        (row, column), H = cells[i], heights[i]
        x = v.margin_px + column * (cell + v.gutter_px) + v.padding_px
        frames[i] = Frame(
            np.broadcast_to(frame, H.shape), H, x + 0 * H, tops[row] + v.padding_px + 0 * H
        )
        is_paged = v.arranged == "pages"
        places[i] = Place(str(column + 1), str(row + 1)) if is_paged else Place()
    return tuple(frames), tuple(places)


@known
class Grid(Layout):
    kind = "grid"
    Values = GridValues
    box = "ul"
    cell = "li"
    most_parts = MOST_PARTS
    has_items = True

    def begin(self, site: Site, placement: Placement) -> Placement:
        """Three columns where it is wide, one where it is narrow, all cells 3:2."""
        spans = spans_of(site)
        layout: dict[str, dict[str, JsonValue]] = {spans[-1].letter: {"columns": 3}}
        if len(spans) > 2:
            layout[spans[1].letter] = {"columns": 2}
        if len(spans) > 1:
            layout[spans[0].letter] = {"columns": 1, "gutter_px": 16}
        common = {spans[-1].letter: Treatment(height=RatioHeight(w=3, h=2))}
        parts = tuple(
            p.model_copy(update={"role": None, "treatments": _without(p.treatments)})
            for p in placement.parts
        )
        held = {**common, **placement.common}
        return placement.model_copy(
            update={"layout": layout, "common": held, "parts": parts, "lead": False}
        )

    def check(self, placement: Placement) -> None:
        super().check(placement)
        for index, part in enumerate(placement.parts):
            if part.role is not None:
                raise InvalidPlan(
                    f"Item {index + 1} is a {part.role}; those belong to banners.", field="parts"
                )
            for letter, own in part.treatments.items():
                if said_alone := [f for f in OF_ALL if f in own_values(own)]:
                    raise InvalidPlan(
                        f"The {said_alone[0]} of a grid is said for all items; item {index + 1}"
                        f" says its own in span {letter}. Reset it there.",
                        field=f"parts.{index}.treatments.{letter}.{said_alone[0]}",
                    )

    def width_sum(self, spot: Spot, part: int, viewport_px: float) -> str:
        """The grid's own width, then that of a cell, then that of the picture inside its padding:
        the box model is border-box."""
        v, n = values_of(spot), columns_of(values_of(spot))
        sums = [super().width_sum(spot, part, viewport_px)]
        at = np.array([float(viewport_px)])
        box = float(frame_widths(spot.cells[0].effective.width, at, spot.container)[0])
        if v.arranged in ("justified", "hidden"):
            return sums[0]
        taken = [f"2·{said_px(v.margin_px)}"] if v.margin_px else []
        taken += [f"{n - 1}·{said_px(v.gutter_px)}"] if n > 1 and v.gutter_px else []
        cell = (box - 2 * v.margin_px - (n - 1) * v.gutter_px) / n
        whole = " − ".join([said_px(box), *taken])
        if n > 1 or taken:
            divided = f"({whole})/{n}" if taken and n > 1 else f"{whole}/{n}" if n > 1 else whole
            sums.append(f"{divided} = {said_px(cell)}")
        if is_wide(spot, part):
            two = 2 * cell + v.gutter_px
            sums.append(f"2·{said_px(cell)} + {said_px(v.gutter_px)} = {said_px(two)}")
            cell = two
        inside = cell - 2 * v.padding_px
        if v.padding_px:
            sums.append(f"{said_px(cell)} − 2·{said_px(v.padding_px)} = {said_px(inside)}")
        if v.arranged == "rows":
            share = inside * v.share_percent / 100
            sums.append(f"{said_px(v.share_percent)} % of {said_px(inside)} = {said_px(share)}")
        return "; ".join(sums)

    def word(self, spot: Spot) -> str:
        v = values_of(spot)
        across = f"{v.columns} across"
        return {
            "cells": across,
            "justified": f"rows of about {v.columns}",
            "masonry": f"{v.columns} columns",
            "rows": "a row each",
            "list": "one column",
            "slides": f"{across}, turned",
            "pages": f"pages of {v.page_of}",
            "hidden": "not shown",
        }[v.arranged]

    def together(self, held: tuple[Effective, ...], values: Noun) -> tuple[Effective, ...]:
        """Where nothing is arranged, nothing shows and nothing is fetched."""
        if cast(GridValues, values).arranged != "hidden":
            return held
        return tuple(replace(e, show="nothing") for e in held)

    def has_text(self, placement: Placement) -> bool:
        return any(p.item and p.item.has_caption for p in placement.parts)

    def frame(self, spot: Spot, part: int) -> Frame:
        return self.frames(spot)[part]

    def frames(self, spot: Spot) -> Sequence[Frame]:
        zero = np.zeros((1, len(spot.viewports.widths)))
        nothing = Frame(zero, zero, zero, zero)
        return [found or nothing for found in laid_out(spot).frames]

    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        return straight_lines(spot.viewports.widths, self.frame(spot, part).W[0])

    def rules(self, spot: Spot) -> dict[str, dict[str, str]]:
        v, laid = values_of(spot), laid_out(spot)
        n, shown = laid.n, laid.places
        turned, beside = v.is_turned, v.arranged == "rows"
        e = spot.cells[0].effective
        widths = frame_widths(e.width, spot.viewports.widths, spot.container)
        fills = (widths >= spot.viewports.widths - 0.01).all()
        is_flex = v.arranged == "justified"
        equal = f"repeat({n}, minmax(0, 1fr))" if n > 1 else "minmax(0, 1fr)"
        gaps = (n - 1) * v.gutter_px
        each = f"calc((100% - {px(gaps)}) / {n})" if gaps else f"{number(round(100 / n, 6))}%"
        gone = v.arranged == "hidden" or not any(shown)
        display = "none" if gone else "flex" if is_flex else "grid"
        item = "grid" if beside else "block"
        out = {
            "": {
                "box-sizing": "border-box",
                "list-style": "none",
                "margin-block": "0",
                "display": display,
                "grid-template-columns": "none" if turned or is_flex else equal,
                "grid-auto-flow": "column" if turned else "row",
                "grid-auto-columns": each if turned else "auto",
                "flex-wrap": "wrap" if is_flex else "nowrap",
                "align-items": "start",
                "gap": px(v.gutter_px),
                "width": width_css(e.width, spot.container),
                "margin-inline": "0" if fills else standing_css(e.stands, e.width, spot.container),
                "padding": px(v.margin_px),
                "overflow-x": "auto" if turned else "visible",
                "scroll-snap-type": "x mandatory" if turned else "none",
                "scroll-padding": px(v.margin_px) if turned else "auto",
            },
            " > li": {
                "box-sizing": "border-box",
                "min-width": "0",
                "padding": px(v.padding_px),
                "container-type": "inline-size" if any(map(_is_wide, _items(spot))) else "normal",
                "scroll-snap-align": "start" if turned else "none",
            },
            " figure": {
                "display": item,
                "grid-template-columns": (
                    f"{number(v.share_percent)}% minmax(0, 1fr)" if beside else "none"
                ),
                "column-gap": "0",
                "align-items": "start",
                "margin": "0",
            },
        }
        captions = caption_css(spot.typeface, v)
        captions[" figcaption"] |= {
            "padding-left": px(_BESIDE) if beside else "0",
            "white-space": "nowrap" if v.arranged == "masonry" else "normal",
            "overflow": "hidden" if v.arranged == "masonry" else "visible",
            "text-overflow": "ellipsis",
        }
        captions[" figcaption > :first-child"] = {"margin-top": "0" if beside else px(ABOVE_PX)}
        if any(i and i.has_caption for i in _items(spot)):
            out |= captions
        later = frozenset(waiting_items(spot))
        out[":has(:target)"] = {"--more": "block" if later else "none"}
        out[" > [data-more]"] = {
            "display": "block" if later else "none",
            "grid-column": "1 / -1",
            "width": "100%",
        }
        out[":has(:target) > [data-more]"] = {"display": "none"}
        for i, place in enumerate(shown):
            shows = "var(--more, none)" if i in later else "block"
            held = place or Place()
            out[f" > :nth-child({i + 1})"] = {
                "display": "none" if place is None else shows,
                "grid-column": held.column,
                "grid-row": held.row,
                "margin-top": held.margin_top,
                "width": held.width,
                "flex": held.flex,
            }
        return out

    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        v, cell = values_of(spot), spot.cells[part]
        e = cell.effective
        w, h = cell.natural
        height = height_css(e.height, cell.natural)
        if v.arranged in OWN_RATIOS:
            height = {
                **height_css(RatioHeight(w=1, h=1), cell.natural),
                "aspect-ratio": f"{w} / {h}",
            }
        elif is_wide(spot, part) and isinstance(e.height, RatioHeight):
            height = {**height, **_wide_height(v, e.height)}
        return {
            "display": "none" if e.show == "nothing" else "block",
            "width": "100%",
            **height,
            "background": e.background,
        }


def _without(treatments: Treatments) -> Treatments:
    """Treatments that leave the frame to what holds for all items."""
    bare = {k: t.model_copy(update=dict.fromkeys(OF_FRAME)) for k, t in treatments.items()}
    return {k: t for k, t in bare.items() if own_values(t)}


def _items(spot: Spot) -> list[Item | None]:
    return [c.item for c in spot.cells]


def _is_wide(item: Item | None) -> bool:
    return bool(item and item.wide)


def _wide_height(v: GridValues, rule: RatioHeight) -> dict[str, str]:
    """As high as the others of its row: their width follows from that of its own cell, 100cqw being
    what that has inside its padding."""
    share = rule.h / rule.w
    rest = (2 * v.padding_px - v.gutter_px) / 2 - 2 * v.padding_px
    sign = "+" if rest > 0 else "-"
    narrow = f"50cqw {sign} {px(abs(rest))}" if rest else "50cqw"
    return {"height": f"calc(({narrow}) * {number(round(share, 6))})", "aspect-ratio": "auto"}
