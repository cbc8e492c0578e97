"""Where a hand likes to stop: what its rules say, the fold, edges of the design, the wider span's
value, and heights at which a keep area begins or ends to be whole."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from typing import NamedTuple

from pydantic import ValidationError

from skypane.errors import InvalidPlan
from skypane.layouts import Handle, Sets, Spot
from skypane.model import FixedHeight, Original
from skypane.pulls.here import Here
from skypane.pulls.nouns import StopAt
from skypane.shown.keeps import fates
from skypane.shown.nouns import ShownSpan

#: Two stops that are nearer to each other are one, in CSS px: the first of them.
ONE_PX = 0.5
#: Heights are looked at in so many steps, from this share of the frame's width to that.
AREA_STEPS, LEAST_SHARE, MOST_SHARE = 48, 0.12, 2.4


class Stopping(NamedTuple):
    """A place to stop at. `sets` is what is set there where a rule says it, else the value is
    found; `gone`: the span takes its own value back."""

    at: float
    words: str
    sets: Sets | None = None
    gone: bool = False

    @property
    def read(self) -> StopAt:
        return StopAt(at=round(self.at, 2), words=self.words)


def stops_of(of: Here, handle: Handle, wider: float | None) -> list[Stopping]:
    """From the first to the last along its axis. `wider` is where the edge is with what the wider
    span hands down, None where that says the same."""
    out: list[Stopping] = []
    for stop in (
        *_handed_down(of, wider),
        *_by_rules(of, handle),
        *_by_lines(of, handle),
        *(_by_areas(of, handle) if handle.id == "height" else ()),
    ):
        if all(abs(stop.at - other.at) > ONE_PX for other in out):
            out.append(stop)
    return sorted(out, key=lambda s: s.at)


def _handed_down(of: Here, wider: float | None) -> Iterator[Stopping]:
    above = of.wider()
    if wider is not None and above is not None:
        yield Stopping(wider, f"as {above.letter} has it", gone=True)


def _by_rules(of: Here, handle: Handle) -> Iterator[Stopping]:
    for stop in handle.stops:
        at = _place(of, handle, stop.sets)
        if at is not None:
            yield Stopping(at, stop.words, stop.sets)
    if handle.step >= 1:
        for n in range(round(handle.least), round(handle.most) + 1):
            at = _place(of, handle, handle.sets(n))
            if at is not None:
                yield Stopping(at, handle.words(n), handle.sets(n))


def _by_lines(of: Here, handle: Handle) -> Iterator[Stopping]:
    lines = of.held.lines
    if handle.axis == "y" and lines.fold is not None:
        yield Stopping(lines.fold, "the fold")
    for at in lines.x if handle.axis == "x" else lines.y:
        yield Stopping(at, "the edge on the design")


def _place(of: Here, handle: Handle, sets: Sets) -> float | None:
    try:
        return handle.at(of.with_sets(sets, handle.part))
    except (InvalidPlan, ValidationError):
        return None


# -- areas ----------------------------------------------------------------------------------


def _by_areas(of: Here, handle: Handle) -> Iterator[Stopping]:
    """Heights at which an area begins, or ends, to be whole."""
    index = of.part if of.shown[of.part] is not None else 0
    original = of.shown[index]
    if original is None or not original.keeps:
        return
    edge = handle.edge(of.spot)
    wide = edge.x1 - edge.x0
    top = edge.y0 - _high(of, of.spot, index)
    heights = [
        wide * (LEAST_SHARE + (MOST_SHARE - LEAST_SHARE) * n / AREA_STEPS)
        for n in range(AREA_STEPS + 1)
    ]
    whole = [_whole(of, handle, index, original, h) for h in heights]
    for n in range(AREA_STEPS):
        for name in whole[n].keys() & whole[n + 1].keys():
            if whole[n][name] != whole[n + 1][name]:
                h = _turn(of, handle, index, original, name, (heights[n], heights[n + 1]))
                below = whole[n + 1][name]
                yield Stopping(
                    top + h,
                    f"{name} is whole from here" if below else f"{name} is whole down to here",
                )


def _high(of: Here, spot: Spot, index: int) -> float:
    return float(of.layout.frame(spot, index).H[0, 0])


def _whole(
    of: Here, handle: Handle, index: int, original: Original, high: float
) -> Mapping[str, bool]:
    sets = Sets({"height": FixedHeight(height_px=max(1.0, high))})
    try:
        p = of.alone(index, sets, handle.part)
    except InvalidPlan:
        return {}
    if not isinstance(p, ShownSpan):
        return {}
    return {a.name: str(fates(p, a)[0][0]) == "whole" for a in p.keeps}


def _turn(
    of: Here,
    handle: Handle,
    index: int,
    original: Original,
    name: str,
    between: tuple[float, float],
) -> float:
    """The last height, to a quarter of a px, on the side at which the area is whole."""
    low, high = between
    low_whole = _whole(of, handle, index, original, low).get(name, False)
    while high - low > 0.25:
        middle = (low + high) / 2
        if _whole(of, handle, index, original, middle).get(name, False) == low_whole:
            low = middle
        else:
            high = middle
    return low if low_whole else high
