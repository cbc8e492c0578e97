"""Many pictures in one spot: the kind, and what it begins with. Where its items are is worked out
in `arranged`."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import cast

import numpy as np
from pydantic import JsonValue

from skypane.kinds.grid.arranged import (
    columns_of,
    is_wide,
    laid_out,
    padding_of,
    turned_stops,
    values_of,
)
from skypane.kinds.grid.css import frame_css, grid_css
from skypane.kinds.grid.handles import handles_of
from skypane.kinds.grid.values import OWN_RATIOS, GridValues
from skypane.layouts import Frame, Handle, Many, Spot, known
from skypane.model import Placement, Site
from skypane.treatments import Effective
from skypane.values import Noun
from skypane.widths.frames import Piece, frame_widths
from skypane.widths.lines import straight_lines
from skypane.widths.spans import spans_of
from skypane.widths.sums import figure


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
        taken = [f"2·{figure(v.margin_px)}"] if v.margin_px else []
        taken += [f"{n - 1}·{figure(v.gutter_px)}"] if n > 1 and v.gutter_px else []
        cell = (box - 2 * v.margin_px - (n - 1) * v.gutter_px) / n
        whole = " − ".join([figure(box), *taken])
        if n > 1 or taken:
            divided = f"({whole})/{n}" if taken and n > 1 else f"{whole}/{n}" if n > 1 else whole
            sums.append(f"{divided} = {figure(cell)}")
        if is_wide(spot, part):
            two = 2 * cell + v.gutter_px
            sums.append(f"2·{figure(cell)} + {figure(v.gutter_px)} = {figure(two)}")
            cell = two
        content = box - 2 * v.margin_px
        padding = float(padding_of(spot).of(np.array([content]))[0])
        inside = cell - 2 * padding
        if v.padding_percent:
            of = f"{figure(v.padding_percent)} % of {figure(content)}"
            sums.append(f"{of} = {figure(padding)}")
        if padding:
            sums.append(f"{figure(cell)} − 2·{figure(padding)} = {figure(inside)}")
        if v.arranged == "rows":
            share = inside * v.share_percent / 100
            sums.append(f"{figure(v.share_percent)} % of {figure(inside)} = {figure(share)}")
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

    def handles(self, spot: Spot) -> Iterable[Handle]:
        return handles_of(spot)

    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        return straight_lines(spot.viewports.widths, self.frame(spot, part).W[0])

    def rules(self, spot: Spot) -> dict[str, dict[str, str]]:
        return grid_css(spot)

    def without(self, spots: Sequence[Spot]) -> tuple[str, ...]:
        return () if any(turned_stops(s) > 1 for s in spots) else ("-turns",)

    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        return frame_css(spot, part)
