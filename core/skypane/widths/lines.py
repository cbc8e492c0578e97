"""A function of the viewport width as the straight lines that it is made of."""

from __future__ import annotations

import math

import numpy as np

from skypane.widths.frames import Floats, Piece

#: Slopes, in px per px, that differ less are one line.
SAME_SLOPE = 1e-7


def straight_lines(v: Floats, y: Floats) -> list[Piece]:
    """The lines through values at consecutive whole widths, exact at each of them; the last one
    goes on for ever.

    Two lines that meet between two whole widths meet there; where they do not, the value jumps, and
    the one ends with the whole width before.
    """
    if len(v) == 1:
        return [Piece(math.inf, 0.0, float(y[0]))]
    slope = np.diff(y)
    changes = np.flatnonzero(np.abs(np.diff(slope)) > SAME_SLOPE) + 1
    starts, ends = [0, *changes.tolist()], [*changes.tolist(), len(slope)]
    runs = list(zip(starts, ends, strict=True))  # of steps from one width to the next
    out: list[Piece] = []
    i = 0
    while i < len(runs):
        a, b = runs[i]
        share = float((y[b] - y[a]) / (b - a))
        if abs(share) < SAME_SLOPE:
            share = 0.0
        line = Piece(float(v[b]), share, float(y[a] - share * v[a]))
        odd = i + 2 < len(runs) and runs[i + 1][1] - runs[i + 1][0] == 1
        if odd:
            first, last = runs[i + 2]
            after = float((y[last] - y[first]) / (last - first))
            until = _meet(line, after, float(y[first] - after * v[first]), float(v[b]))
            out.append(line._replace(until=until))
            i += 2
            continue
        out.append(line)
        i += 1
    out[-1] = out[-1]._replace(until=math.inf)
    return out


def _meet(line: Piece, share: float, constant: float, width: float) -> float:
    """Where a line meets another between a whole width and the next; that width where it does
    not."""
    if abs(line.share - share) > SAME_SLOPE:
        at = (constant - line.constant) / (line.share - share)
        if width - 1e-6 <= at <= width + 1 + 1e-6:
            return round(at, 4)
    return width
