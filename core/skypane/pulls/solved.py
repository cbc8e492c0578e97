"""The value with which an edge is at a place: found by laying out, so that it is where it will be
drawn."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

from pydantic import ValidationError

from skypane.errors import InvalidPlan, sentence_of
from skypane.layouts import Handle, Spot
from skypane.pulls.here import Here

#: An edge that is so near is there, in CSS px.
THERE_PX = 0.05
#: So often is laid out at most to find one value.
MOST_TRIES = 60


class Solved(NamedTuple):
    """A value and where the edge then is. `refused`: what was said of the next value that way, if
    it cannot be had."""

    value: float
    at: float
    refused: str | None = None


class _Tried:
    """Where an edge is with a value; what cannot be had is None, and why is remembered."""

    def __init__(self, of: Here, handle: Handle) -> None:
        self.of, self.handle = of, handle
        self.refused: str | None = None
        self.known: dict[float, float | None] = {}

    def __call__(self, value: float) -> float | None:
        value = rounded(self.handle, value)
        if value not in self.known:
            self.known[value] = self._at(value)
        return self.known[value]

    def _at(self, value: float) -> float | None:
        try:
            spot = self.spot(value)
            self.of.check(spot)
            return self.handle.at(spot)
        except InvalidPlan as problem:
            self.refused = str(problem)
        except ValidationError as problem:
            self.refused = sentence_of(problem)
        return None

    def spot(self, value: float) -> Spot:
        return self.of.with_sets(self.handle.sets(value), self.handle.part)


def rounded(handle: Handle, value: float) -> float:
    """A value in the handle's own steps and bounds."""
    value = min(max(value, handle.least), handle.most)
    if not handle.step:
        return value
    return min(max(round(round(value / handle.step) * handle.step, 6), handle.least), handle.most)


def solved(of: Here, handle: Handle, to: float) -> Solved:
    """The value whose edge is nearest to a place; where the way there ends before it, the last one
    on the way."""
    at = _Tried(of, handle)
    here = at(handle.value)
    now = handle.at(of.spot)
    if here is None or abs(now - to) <= THERE_PX:
        return Solved(handle.value, now, at.refused if here is None else None)
    if handle.step >= 1:
        return _among_steps(at, handle, to)
    return _between(at, handle, to, handle.value, now)


def _among_steps(at: _Tried, handle: Handle, to: float) -> Solved:
    """Of whole numbers each is tried."""
    values = [handle.least + n for n in range(round(handle.most - handle.least) + 1)]
    there = [(abs(px - to), v, px) for v in values if (px := at(v)) is not None]
    if not there:
        return Solved(handle.value, handle.at(at.of.spot), at.refused)
    _, value, px = min(there)
    return Solved(value, px)


def _between(at: _Tried, handle: Handle, to: float, value: float, now: float) -> Solved:
    """By doubling steps until the place lies behind, then by halving what is between."""
    grows = _direction(at, handle, value, now)
    if grows is None:
        return Solved(value, now, at.refused)
    way = 1 if (to > now) == grows else -1
    low, low_at = value, now
    before = value
    step = _first_step(handle, value)
    high: float | None = None
    for _ in range(MOST_TRIES):
        tried = rounded(handle, low + way * step)
        if tried == low:
            break
        found = at(tried)
        if found is None:
            step /= 2
            if step < _finest(handle, low):
                break
            continue
        if (found - to) * (now - to) <= 0:
            high = tried
            break
        if abs(found - low_at) < 1e-9:
            # a bound holds it from somewhere before: what goes on beyond would come to nothing
            low = _first_there(at, handle, before, low, low_at)
            break
        before, low, low_at = low, tried, found
        step *= 2
    if high is None:
        return Solved(low, low_at, at.refused)
    return _halved(at, handle, to, low, high)


def _first_there(at: _Tried, handle: Handle, before: float, there: float, place: float) -> float:
    """The first value on the way whose edge is where it stays."""
    for _ in range(MOST_TRIES):
        middle = rounded(handle, (before + there) / 2)
        if middle in (before, there) or abs(there - before) < _finest(handle, there):
            break
        found = at(middle)
        if found is not None and abs(found - place) < 1e-9:
            there = middle
        else:
            before = middle
    return there


def _halved(at: _Tried, handle: Handle, to: float, low: float, high: float) -> Solved:
    best = _best(at, to, low, high)
    for _ in range(MOST_TRIES):
        a, b = at(low), at(high)
        if a is None or b is None or abs(best.at - to) <= THERE_PX:
            break
        # where a straight line meets it, kept from the ends so that both close in
        share = (to - a) / (b - a) if abs(b - a) > 1e-9 else 0.5
        middle = rounded(handle, low + (high - low) * min(max(share, 0.05), 0.95))
        if middle in (low, high):
            middle = rounded(handle, (low + high) / 2)
            if middle in (low, high):
                break
        found = at(middle)
        if found is None:
            break
        best = min(best, Solved(middle, found), key=lambda s: abs(s.at - to))
        if (found - to) * (a - to) > 0:
            low = middle
        else:
            high = middle
    return best


def _best(at: Callable[[float], float | None], to: float, *values: float) -> Solved:
    there = [Solved(v, px) for v in values if (px := at(v)) is not None]
    return min(there, key=lambda s: abs(s.at - to))


def _first_step(handle: Handle, value: float) -> float:
    return max(abs(value) * 0.05, handle.step * 4, 1e-3)


def _finest(handle: Handle, value: float) -> float:
    return max(handle.step, abs(value) * 1e-6, 1e-7)


def _direction(at: _Tried, handle: Handle, value: float, now: float) -> bool | None:
    """Whether the edge's place grows with the value; None where it does not move at all."""
    step = _first_step(handle, value)
    for _ in range(12):
        for way in (1, -1):
            tried = rounded(handle, value + way * step)
            found = at(tried) if tried != value else None
            if found is not None and abs(found - now) > 1e-6:
                return (found > now) == (tried > value)
        step *= 2
    return None
