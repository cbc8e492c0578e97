"""Many pictures in one spot: the kind, its CSS and what it begins with. Where its items are is
worked out in `arranged`."""

from collections.abc import Sequence
from dataclasses import replace
from typing import cast

import numpy as np
from pydantic import JsonValue

from skypane.kinds.grid.arranged import (
    BESIDE_PX,
    Place,
    columns_of,
    is_wide,
    laid_out,
    line_css,
    padding_in_column,
    padding_of,
    turned_stops,
    values_of,
    waiting_items,
)
from skypane.kinds.grid.values import OWN_RATIOS, GridValues
from skypane.layouts import SCRIPTED, Frame, Many, Spot, known
from skypane.model import Item, Placement, RatioHeight, Site
from skypane.numerals import number, px
from skypane.treatments import Effective
from skypane.values import Noun
from skypane.widths.frame_css import height_css, standing_css, width_css
from skypane.widths.frames import (
    Piece,
    frame_widths,
)
from skypane.widths.lines import straight_lines
from skypane.widths.spans import spans_of
from skypane.widths.sums import said as said_px
from skypane.words.caption import ABOVE_PX, caption_css


@known
class Grid(Many):
    kind = "grid"
    Values = GridValues
    box = "ul"
    cell = "li"
    width_word = "Cell width"

    def begin(self, site: Site, placement: Placement) -> Placement:
        """Three columns where it is wide, one where it is narrow."""
        spans = spans_of(site)
        layout: dict[str, dict[str, JsonValue]] = {spans[-1].letter: {"columns": 3}}
        if len(spans) > 2:
            layout[spans[1].letter] = {"columns": 2}
        if len(spans) > 1:
            layout[spans[0].letter] = {"columns": 1, "gutter_px": 16}
        return super().begin(site, placement).model_copy(update={"layout": layout})

    def keeps_ratios(self, spot: Spot) -> bool:
        return values_of(spot).arranged in OWN_RATIOS

    def first_seen(self, spot: Spot, part: int, frames: Sequence[Frame]) -> bool:
        if values_of(spot).is_turned:
            return part in spot.shown[: columns_of(values_of(spot))]
        return super().first_seen(spot, part, frames)

    def width_sum(self, spot: Spot, part: int, viewport_px: float) -> str:
        """The grid's own width, then that of a cell, then that of the picture inside its padding:
        the box model is border-box."""
        v, n = values_of(spot), columns_of(values_of(spot))
        sums = [super().width_sum(spot, part, viewport_px)]
        at = np.array([viewport_px - spot.scrollbar_px])
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
        content = box - 2 * v.margin_px
        padding = float(padding_of(spot).of(np.array([content]))[0])
        inside = cell - 2 * padding
        if v.padding_percent:
            of = f"{said_px(v.padding_percent)} % of {said_px(content)}"
            sums.append(f"{of} = {said_px(padding)}")
        if padding:
            sums.append(f"{said_px(cell)} − 2·{said_px(padding)} = {said_px(inside)}")
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
        widths = frame_widths(e.width, spot.page_widths, spot.container)
        fills = (widths >= spot.page_widths - 0.01).all()
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
                "padding": _padding_css(spot),
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
            "padding-left": px(BESIDE_PX) if beside else "0",
            "white-space": "nowrap" if v.arranged == "masonry" else "normal",
            "overflow": "hidden" if v.arranged == "masonry" else "visible",
            "text-overflow": "ellipsis",
        }
        captions[" figcaption > :first-child"] = {"margin-top": "0" if beside else px(ABOVE_PX)}
        if any(i and i.has_caption for i in _items(spot)):
            out |= captions
        out |= _turns_css(spot)
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
            if _is_wide(spot.cells[i].item):
                # a percentage refers to both of its columns
                out[f" > :nth-child({i + 1})"]["padding"] = _padding_css(spot, is_wide(spot, i))
        return out

    def without(self, spots: Sequence[Spot]) -> tuple[str, ...]:
        return () if any(turned_stops(s) > 1 for s in spots) else ("-turns",)

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
            height = {**height, **_wide_height(spot, e.height)}
        return {
            "display": "none" if e.show == "nothing" else "block",
            "width": "100%",
            **height,
            "background": e.background,
        }


def _items(spot: Spot) -> list[Item | None]:
    return [c.item for c in spot.cells]


def _is_wide(item: Item | None) -> bool:
    return bool(item and item.wide)


#: The side of a button that turns the row, in CSS px (WCAG 2.2, 2.5.8 asks for 24).
_BUTTON_PX = 36.0


def _turns_css(spot: Spot) -> dict[str, dict[str, str]]:
    """The buttons under a row that is turned, as wide as it. They are there where scripts may run,
    and can be used once theirs does."""
    e = spot.cells[0].effective
    widths = frame_widths(e.width, spot.page_widths, spot.container)
    fills = (widths >= spot.page_widths - 0.01).all()
    display = {"display": "flex" if turned_stops(spot) > 1 else "none"}
    chevron = {"border": "solid currentColor", "border-width": "3px 3px 0 0"}
    return {
        "-turns": {
            "display": "none",
            "visibility": "hidden",
            "box-sizing": "border-box",
            "align-items": "center",
            "justify-content": "center",
            "gap": "12px",
            "width": width_css(e.width, spot.container),
            "margin-inline": "0" if fills else standing_css(e.stands, e.width, spot.container),
            "padding": "8px 0",
            "font": "600 15px/1 sans-serif",
        },
        f"{SCRIPTED}-turns": display,
        "-turns[data-on]": {**display, "visibility": "visible"},
        "-turns button": {
            "display": "grid",
            "place-items": "center",
            "width": px(_BUTTON_PX),
            "height": px(_BUTTON_PX),
            "padding": "0",
            "border": "0",
            "border-radius": "50%",
            "background": "none",
            "color": "inherit",
            "cursor": "pointer",
        },
        "-turns button:focus-visible": {
            "outline": "3px solid currentColor",
            "outline-offset": "-3px",
        },
        "-turns [aria-disabled=true]": {"opacity": "0.4", "cursor": "default"},
        "-turns button::before": {
            "content": '""',
            "width": "9px",
            "height": "9px",
            **chevron,
            "rotate": "45deg",
        },
        "-turns [data-by='-1']::before": {"rotate": "-135deg"},
        "-turns:dir(rtl) button::before": {"rotate": "-135deg"},
        "-turns:dir(rtl) [data-by='-1']::before": {"rotate": "45deg"},
    }


def _padding_css(spot: Spot, wide: bool = False) -> str:
    """The padding of a cell: of the whole row in flexible boxes, of its column in a grid."""
    if values_of(spot).arranged == "justified":
        return line_css(*padding_of(spot))
    share, constant = padding_in_column(spot)
    if wide:
        share, constant = share / 2, constant - share * values_of(spot).gutter_px / 2
    return line_css(share, constant) if share else px(constant)


def _wide_height(spot: Spot, rule: RatioHeight) -> dict[str, str]:
    """As high as the others of its row: their width follows from that of its own cell, 100cqw being
    what that has inside its padding."""
    gutter, (share, constant) = values_of(spot).gutter_px, padding_in_column(spot)
    of = (1 - 2 * share) / (2 - 2 * share)
    rest = (2 * constant - gutter) * of - 2 * constant
    sign = "+" if rest > 0 else "-"
    whole = f"{number(round(100 * of, 6))}cqw"
    narrow = f"{whole} {sign} {px(abs(round(rest, 4)))}" if rest else whole
    high = number(round(rule.h / rule.w, 6))
    return {"height": f"calc(({narrow}) * {high})", "aspect-ratio": "auto"}
