"""Cells side by side: how wide they are, how wide the picture in each is, and whether they wrap.

The *cell* is the border box, the picture's *frame* the content box (CSS Sizing 3, `box-sizing`).
"""

from __future__ import annotations

from typing import Literal, NamedTuple

import numpy as np

from skypane.values import NOISE
from skypane.widths.frames import Floats

BoxModel = Literal["border-box", "content-box"]
#: Chromium and WebKit lay out in steps of 1/64 CSS px and cut what is finer.
STEP = 64


class Cells(NamedTuple):
    """Cells at every width, in CSS px. `row` is what one row of them takes with its gutters."""

    cell: Floats
    frame: Floats
    row: Floats


def equal_cells(holder: Floats, n: int, gutter_px: float, padding_px: float | Floats) -> Cells:
    """`n` cells that share the holder, as `repeat(n, minmax(0, 1fr))` has them (CSS Grid 1 §7.2);
    padding is inside of each cell. Cells of less than nothing are told as they are."""
    cell = (holder - (n - 1) * gutter_px) / n
    return Cells(cell, cell - 2 * padding_px, holder + 0.0 * cell)


def stated_cells(
    holder: Floats,
    n: int,
    percent: float,
    gutter_px: float,
    padding_px: float,
    padding_percent: float,
    box: BoxModel,
) -> Cells:
    """`n` cells whose CSS width is stated in per cent of the holder, as floats and flexible boxes
    have them. With content-box the padding comes on top of that width, with border-box it is
    inside. A percentage padding refers to the holder too (CSS Box 3 §4)."""
    padding = padding_px + holder * padding_percent / 100
    said = holder * percent / 100
    is_content = box == "content-box"
    cell = said + 2 * padding if is_content else np.maximum(said, 2 * padding)
    frame = said if is_content else cell - 2 * padding
    return Cells(cell, frame, n * cell + (n - 1) * gutter_px)


def in_a_row(holder: Floats, cell: Floats, gutter_px: float) -> Floats:
    """How many cells of one width a browser puts into a row that wraps: as many as the holder takes
    with each cut to 1/64 px, at least one (CSS Flexbox 1 §9.3; CSS 2 §9.5.1)."""
    laid = np.floor(cell * STEP + NOISE) / STEP
    return np.maximum(1.0, np.floor((holder + gutter_px) / np.maximum(laid + gutter_px, NOISE)))


def two_wide_ratio(cell: float, gutter_px: float, ratio: float) -> float:
    """The ratio of an item two columns wide that is as high as the others of its row."""
    return (2 * cell + gutter_px) / (cell / ratio)
