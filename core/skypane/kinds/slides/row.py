"""Where the slides of a span and their controls are, and how long they take."""

from __future__ import annotations

import math
from typing import NamedTuple, cast

import numpy as np

from skypane.kinds.slides.values import SlidesValues
from skypane.layouts import Frame, OfLayout, Spot, column_and_row
from skypane.numerals import number
from skypane.widths.frames import Floats, frame_widths

#: The side of a control in CSS px: more than the 24 that WCAG 2.2, 2.5.8 asks for; and the room
#: around all of them.
CONTROL_PX, AROUND_PX = 36.0, 12.0


def values_of(spot: Spot) -> SlidesValues:
    return cast(SlidesValues, spot.values)


class Row(NamedTuple):
    """Widths of the box and of one slide in it, in CSS px, (widths,)."""

    box: Floats
    slide: Floats


def row_of(spot: Spot) -> Row:
    """Raises InvalidPlan where the gutters leave no slide."""
    v = values_of(spot)
    box = frame_widths(spot.cells[0].effective.width, spot.page_widths, spot.container)
    slide = (box - (v.at_a_time - 1) * v.gutter_px) / v.at_a_time
    narrow = np.flatnonzero(slide < 1)
    if narrow.size and spot.shown and v.at_a_time > 1:
        at = int(narrow[0])
        taken = (v.at_a_time - 1) * v.gutter_px
        raise OfLayout(
            f"{v.at_a_time} slides at a time do not fit at {int(spot.viewports.widths[at])} px,"
            f" span {spot.span.letter}: gutters take {number(taken)} px of"
            f" {number(round(float(box[at]), 1))}. Show fewer there, or less between them.",
            field="at_a_time",
        )
    return Row(box, slide)


def stops_of(spot: Spot) -> int:
    """How many places a slideshow stands still at in a span: it moves by as many slides as show."""
    return math.ceil(len(spot.shown) / values_of(spot).at_a_time)


def loop_s(spot: Spot) -> float:
    """How long a slideshow takes from the first slide to the first again, in seconds."""
    v = values_of(spot)
    return stops_of(spot) * v.every_s


def change_s(v: SlidesValues) -> float:
    return 0.0 if v.change == "none" else v.change_s


def n_controls(spot: Spot) -> int:
    v, stops = values_of(spot), stops_of(spot)
    if stops < 2:
        return 0
    listed = {"dots": stops, "numbers": stops, "arrows": 2, "none": 0}[v.controls]
    return listed + (1 if v.by_itself else 0)


def controls_on(spot: Spot, high: Floats) -> Frame | None:
    """The controls where they lie on slides that are `high` CSS px, (heights, widths), from the
    row's top left corner; None where none do."""
    v, n = values_of(spot), n_controls(spot)
    if v.controls_lie != "on" or not n:
        return None
    box = np.broadcast_to(row_of(spot).box, high.shape)
    room = np.maximum(box - 2 * AROUND_PX, CONTROL_PX)
    in_a_row = np.minimum(n, np.floor(room / CONTROL_PX))
    w, h = in_a_row * CONTROL_PX, np.ceil(n / in_a_row) * CONTROL_PX
    across, down = column_and_row(v.controls_place)
    x = AROUND_PX + across * (box - 2 * AROUND_PX - w)
    return Frame(w, h, x, AROUND_PX + down * (high - 2 * AROUND_PX - h))
