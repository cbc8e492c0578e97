"""Columns of pictures in their own ratios: the next one goes to the column that is least high
(rules §12)."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from skypane.values import NOISE
from skypane.widths.frames import Floats


class Put(NamedTuple):
    """The column of an item, and what stands above it there: Σ height / width of the frames, the
    number of items, and Σ of their other heights in CSS px."""

    column: int
    above: float
    items: int
    above_px: float


def put_into_columns(
    ratios: Floats, n: int, frame_px: float, gutter_px: float, other_px: Floats
) -> tuple[Put, ...]:
    """The next item to the least high column, to the first of equals. `frame_px` is the width of a
    frame, `other_px` what each item has under its picture, both in CSS px."""
    n = max(1, n)
    high = np.zeros(n)
    above, count, px = np.zeros(n), np.zeros(n, dtype=np.int64), np.zeros(n)
    out = []
    for ratio, other in zip(ratios, other_px, strict=True):
        column = int(np.flatnonzero(high <= high.min() + NOISE)[0])
        out.append(Put(column, float(above[column]), int(count[column]), float(px[column])))
        above[column] += 1 / ratio
        count[column] += 1
        px[column] += other
        high[column] += frame_px / ratio + other + gutter_px
    return tuple(out)
