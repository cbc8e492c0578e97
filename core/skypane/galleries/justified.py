"""Rows of pictures in their own ratios, each row filled from edge to edge (rules §12)."""

from __future__ import annotations

from typing import NamedTuple

import numpy as np

from skypane.values import NOISE
from skypane.widths.frames import Floats


class Row(NamedTuple):
    """Items `first` to `last` - 1, and whether the row is filled; the last one may be not."""

    first: int
    last: int
    filled: bool


def row_height(holder: Floats, ratios: Floats, gutter_px: float) -> Floats:
    """The height at which pictures side by side fill the holder: h = (C - (k - 1) g) / Σ r."""
    share: Floats = (holder - (len(ratios) - 1) * gutter_px) / ratios.sum()
    return share


def broken_into_rows(
    ratios: Floats, holder: float, gutter_px: float, target: float
) -> tuple[Row, ...]:
    """The breaks that make rows as near to `target` high as can be: Σ ln²(h / target) is least over
    all ways to break, found exactly by dynamic programming. The last row is at most `target` high;
    where it would be higher it is not filled, which costs nothing. Ties take fewer rows.

    `holder`, `gutter_px` and `target` in CSS px. A row for which the gutters leave no room is none;
    an item alone always is one.
    """
    n = len(ratios)
    upto = np.concatenate([[0.0], np.cumsum(ratios)])
    best = np.full(n + 1, np.inf)
    rows = np.zeros(n + 1, dtype=np.int64)
    before = np.zeros(n + 1, dtype=np.int64)
    best[0] = 0.0
    for last in range(1, n + 1):
        first = np.arange(last)
        room = holder - (last - first - 1) * gutter_px
        height = np.maximum(room, NOISE) / (upto[last] - upto[first])
        cost = np.log(height / target) ** 2
        if last == n:
            cost = np.where(height > target, 0.0, cost)
        cost = np.where((room > 0) | (first == last - 1), cost, np.inf)
        total = best[first] + cost
        tied = total <= total.min() + 1e-12
        at = first[tied][int(rows[first[tied]].argmin())]
        best[last], rows[last], before[last] = total[at], rows[at] + 1, at
    out: list[Row] = []
    last = n
    while last > 0:
        first_of = int(before[last])
        height = float(row_height(np.asarray(holder), ratios[first_of:last], gutter_px))
        out.append(Row(first_of, last, last < n or height <= target + NOISE))
        last = first_of
    return tuple(reversed(out))
