"""Where a hand likes to stop: what its rules say, the fold, edges of the design, the wider span's
value, and heights at which a keep area begins or ends to be whole."""

from __future__ import annotations

from collections.abc import Callable, Iterator, Mapping
from functools import partial
from itertools import pairwise
from typing import NamedTuple

from pydantic import ValidationError

from skypane.errors import InvalidPlan
from skypane.layouts import Handle, Sets
from skypane.model import FixedHeight
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


def stops_of(
    of: Here, handle: Handle, wider: float | None, within: tuple[float, float] | None = None
) -> list[Stopping]:
    """From the first to the last along its axis. `wider` is where the edge is with what the wider
    span hands down, None where that says the same. While something is pulled only what areas do
    `within` two places is asked for: to look at every height takes longer than all the rest."""
    out: list[Stopping] = []
    for stop in (
        *_handed_down(of, wider),
        *_by_rules(of, handle),
        *_by_lines(of, handle),
        *(_by_areas(of, handle, within) if handle.id == "height" else ()),
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


def _by_areas(of: Here, handle: Handle, within: tuple[float, float] | None) -> Iterator[Stopping]:
    """Heights at which an area begins, or ends, to be whole."""
    index = of.part if of.shown[of.part] is not None else 0
    original = of.shown[index]
    if original is None or not original.keeps:
        return
    edge = handle.edge(of.spot)
    wide = edge.x1 - edge.x0
    top = edge.y0 - float(of.layout.frame(of.spot, index).H[0, 0])
    if within is not None:
        heights = [max(1.0, at - top) for at in within]
    else:
        grows = (MOST_SHARE - LEAST_SHARE) / AREA_STEPS
        heights = [wide * (LEAST_SHARE + grows * n) for n in range(AREA_STEPS + 1)]

    def whole(high: float) -> Mapping[str, bool]:
        return _whole(of, handle.part, index, high)

    def is_whole(name: str, high: float) -> bool:
        return whole(high).get(name, False)

    for low, high in pairwise([(h, whole(h)) for h in heights]):
        for name in low[1].keys() & high[1].keys():
            if low[1][name] != high[1][name]:
                at = _turn(partial(is_whole, name), low[0], high[0])
                from_here = "from here" if high[1][name] else "down to here"
                yield Stopping(top + at, f"{name} is whole {from_here}")


def _whole(of: Here, part: int | None, index: int, high: float) -> Mapping[str, bool]:
    """Which areas are whole in a frame so high."""
    sets = Sets({"height": FixedHeight(height_px=max(1.0, high))})
    try:
        p = of.alone(index, sets, part)
    except InvalidPlan:
        return {}
    if not isinstance(p, ShownSpan):
        return {}
    return {a.name: str(fates(p, a)[0][0]) == "whole" for a in p.keeps}


def _turn(is_whole: Callable[[float], bool], low: float, high: float) -> float:
    """The last height, to a quarter of a px, on the side at which an area is whole."""
    at_low = is_whole(low)
    while high - low > 0.25:
        middle = (low + high) / 2
        if is_whole(middle) == at_low:
            low = middle
        else:
            high = middle
    return low if at_low else high
