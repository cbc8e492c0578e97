"""The widths to export for a frame that changes with the page (rules §7).

Bytes of a file grow as c·wᵉ with its width. A visitor's need is the drawn width × the density of
the screen, in whole px; the file taken is the smallest that suffices. With needs alone as
candidates (a width between two needs serves the same visitors as the next need, with more bytes)
dynamic programming over them is exact.
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from skypane.values import Noun
from skypane.widths.frames import Floats


class Growth(Noun):
    """Bytes of a format over the width in px: c·wᵉ."""

    c: float = 1.0
    e: float = 1.6


#: Before anything has been encoded: between an area of even detail (2) and one that gets smoother
#: as it grows (common practice; measured on the demo's photographs: 1.4 to 1.8).
USUAL_GROWTH = Growth()


class Need(NamedTuple):
    """Visitors of one weight who need a file of this width in px."""

    px: int
    weight: float


class Ladder(NamedTuple):
    """Widths in px from the narrowest, and what they cost: the bytes that a visitor gets on
    average, and how many of them are waste against each getting the exact need."""

    widths: tuple[int, ...]
    expected: float
    waste: float


def fitted(made: Sequence[tuple[int, int]]) -> Growth | None:
    """c and e by least squares of log bytes on log width, from (width in px, bytes) of real files;
    None where fewer than two widths are known."""
    if len({w for w, _ in made}) < 2:
        return None
    x = np.log([w for w, _ in made])
    y = np.log([max(1, size) for _, size in made])
    e, log_c = np.polyfit(x, y, 1)
    return Growth(c=float(np.exp(log_c)), e=float(e))


class Bytes:
    """Bytes over width where several formats share one ladder: each weighs as many as take it."""

    def __init__(self, growths: Mapping[str, Growth], shares: Mapping[str, float]) -> None:
        total = sum(shares[f] for f in growths) or 1.0
        self.terms = tuple(
            (g.c * (shares[f] / total if total else 1 / len(growths)), g.e)
            for f, g in growths.items()
        )

    def __call__(self, widths: Floats) -> Floats:
        total: Floats = np.sum([c * widths**e for c, e in self.terms], axis=0, dtype=np.float64)
        return total


def merged_needs(needs: Sequence[Need], top: int) -> tuple[Need, ...]:
    """Equal needs as one, ascending, none above the top; weights add up to 1. The top itself is
    always among them, if only with no weight."""
    weights: dict[int, float] = {top: 0.0}
    for px, weight in needs:
        at = min(px, top)
        weights[at] = weights.get(at, 0.0) + weight
    total = sum(weights.values())
    if not total:
        weights, total = {top: 1.0}, 1.0
    return tuple(Need(px, w / total) for px, w in sorted(weights.items()))


def cost(widths: Sequence[int], needs: Sequence[Need], size: Bytes) -> Ladder:
    """What given widths cost, whatever they are. `needs` as `merged_needs` gives them."""
    rungs = np.array(sorted(set(widths)), dtype=np.float64)
    px = np.array([n.px for n in needs], dtype=np.float64)
    weight = np.array([n.weight for n in needs])
    taken = rungs[np.minimum(np.searchsorted(rungs, px), len(rungs) - 1)]
    exact = float((weight * size(px)).sum())
    expected = float((weight * size(taken)).sum())
    return Ladder(tuple(int(r) for r in rungs), expected, expected / exact - 1)


def best(needs: Sequence[Need], n: int, size: Bytes) -> tuple[Ladder, ...]:
    """The best ladders of 1, 2 … up to n widths; fewer where no further width saves anything.
    `needs` as `merged_needs` gives them: the last is the top, which every ladder holds."""
    px = np.array([need.px for need in needs], dtype=np.float64)
    upto = np.cumsum([need.weight for need in needs])
    b = size(px)
    exact = float((np.diff(upto, prepend=0.0) * b).sum())
    before = b * upto  # with one width: each candidate serves all up to itself
    came: list[Sequence[int]] = []
    out = [_ladder(px, came, float(before[-1]), exact)]
    for _ in range(1, min(n, len(px))):
        now, from_ = _one_more(before.tolist(), upto.tolist(), b.tolist())
        came.append(from_)
        if now[-1] >= before[-1] * (1 - 1e-12):
            break
        out.append(_ladder(px, came, now[-1], exact))
        before = np.array(now)
    return tuple(out)


def _one_more(
    before: Sequence[float], upto: Sequence[float], b: Sequence[float]
) -> tuple[list[float], list[int]]:
    """What the j-th candidate costs with one width more, and the candidate below it then.

    The least over i < j of before_i + b_j·(upto_j − upto_i): lines of b_j whose slopes −upto_i
    fall, asked for at growing b_j, so that the lowest of them moves on and never back (the envelope
    of lines; common practice).
    """
    now, from_ = [math.inf] * len(b), [0] * len(b)
    lines: list[int] = []
    at = 0
    for j in range(1, len(b)):
        new = j - 1
        if math.isinf(before[new]):  # too few candidates below it for so many widths
            continue
        while len(lines) > at + 1 and _is_above(before, upto, lines[-2], lines[-1], new):
            lines.pop()
        lines.append(new)
        x = b[j]
        while at + 1 < len(lines):
            here, next_ = lines[at], lines[at + 1]
            if before[next_] - x * upto[next_] < before[here] - x * upto[here]:
                at += 1
            else:
                break
        i = lines[at]
        now[j], from_[j] = before[i] + x * (upto[j] - upto[i]), i
    return now, from_


def _is_above(before: Sequence[float], upto: Sequence[float], i: int, k: int, j: int) -> bool:
    """Whether the line of k is nowhere below those of i and j, between which its slope lies."""
    left = (before[j] - before[i]) * (upto[k] - upto[i])
    right = (before[k] - before[i]) * (upto[j] - upto[i])
    return left <= right


def _ladder(
    px: Floats,
    came: Sequence[Sequence[int]],
    expected: float,
    exact: float,
) -> Ladder:
    at, widths = len(px) - 1, []
    widths.append(int(px[at]))
    for from_ in reversed(came):
        at = int(from_[at])
        widths.append(int(px[at]))
    return Ladder(tuple(reversed(widths)), expected, max(0.0, expected / exact - 1))


def enough(ladders: Sequence[Ladder], waste: float) -> Ladder:
    """The first, with the fewest widths, whose waste is at most this share; else the last."""
    return next((x for x in ladders if x.waste <= waste + 1e-12), ladders[-1])


@lru_cache(maxsize=512)
def usual(needs: tuple[Need, ...], n: int) -> tuple[Ladder, ...]:
    """The best ladders before anything is known of the bytes."""
    return best(needs, n, Bytes({"any": USUAL_GROWTH}, {"any": 1}))
