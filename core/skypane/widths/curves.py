"""Functions of the viewport width as the few points where their slope changes."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from skypane.values import Noun
from skypane.widths.frames import Floats
from skypane.widths.runs import constant

Points = tuple[tuple[float, float], ...]


class Curve(Noun):
    """A function of the viewport width as (width, value) points, linear in between."""

    points: Points


def between(curve: Curve, widths: Sequence[tuple[int, int]]) -> Points:
    """The points of a curve in some stretches of widths, with those at their ends."""
    if not curve.points:
        return ()
    at, values = zip(*curve.points, strict=True)
    out: list[tuple[float, float]] = []
    for a, b in widths:
        first, last = max(float(a), at[0]), min(float(b), at[-1])
        if first <= last:
            inner = (p for p in curve.points if first < p[0] < last)
            ends = [(w, round(float(np.interp(w, at, values)), 5)) for w in (first, last)]
            out += [ends[0], *inner, *(ends[1:] if last > first else ())]
    return tuple(out)


def simplified(v: Floats, y: Floats, tolerance: float) -> Curve:
    """The fewest points, found by splitting at the farthest one, between which straight lines stay
    within `tolerance`."""
    if constant(y) or y.min() == y.max():
        ends = (float(v[0]),) if len(v) == 1 else (float(v[0]), float(v[-1]))
        return Curve(points=tuple((at, round(float(y[0]), 5)) for at in ends))
    keep = np.array([0, len(v) - 1])
    slope = (y[-1] - y[0]) / (v[-1] - v[0])
    gap = np.abs(y[0] + slope * (v - v[0]) - y)
    if gap.max() <= tolerance:  # one straight line, as most are
        return Curve(points=tuple(zip(v[keep].tolist(), y[keep].round(5).tolist(), strict=True)))
    while True:  # all pieces that are too far off are split at once
        gap = np.abs(np.interp(v, v[keep], y[keep]) - y)
        over = np.flatnonzero(np.maximum.reduceat(gap, keep[:-1]) > tolerance)
        if not over.size:
            break
        split = [
            a + int(gap[a:b].argmax()) for a, b in zip(keep[over], keep[over + 1], strict=True)
        ]
        keep = np.sort(np.concatenate([keep, split]))
    return Curve(points=tuple(zip(v[keep].tolist(), y[keep].round(5).tolist(), strict=True)))
