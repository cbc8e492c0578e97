"""What is set when an edge is pulled to a place, or its value typed."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from pydantic import BaseModel, ValidationError

from skypane.errors import InvalidPlan, sentence_of
from skypane.layouts import Handle, Sets, Spot
from skypane.model import Original
from skypane.numerals import number
from skypane.pulls.here import Here, again
from skypane.pulls.nouns import Pulled, PulledTo
from skypane.pulls.solved import Solved, rounded, solved
from skypane.pulls.stage import field_of, wider_at, without
from skypane.pulls.stops import Stopping, stops_of
from skypane.pulls.told import told

#: An edge that is so much short of where it was pulled has been stopped, in CSS px.
SHORT_PX = 0.75


def pulled(of: Here, originals: Mapping[int, Original], to: PulledTo) -> Pulled:
    """Raises InvalidPlan for a handle that is not there, and for a typed value that cannot be."""
    handle = of.handle(to.handle)
    if to.to is None:
        return _typed(of, handle, float(to.value or 0))
    stop = None if to.free else _near(of, handle, originals, to.to, to.near_px)
    if stop is not None and stop.gone:
        return _taken_back(of, handle, originals, stop)
    if stop is not None and stop.sets is not None:
        spot = of.with_sets(stop.sets, handle.part)
        return _answer(of, handle, stop.sets, spot, stop.words, stop=stop.words)
    aim = to.to if stop is None else stop.at
    found = solved(of, handle, aim)
    sets = handle.sets(found.value)
    spot = of.with_sets(sets, handle.part)
    bound = None
    if handle.step < 1 and abs(found.at - aim) > SHORT_PX:
        bound = _why_stopped(of, handle, found)
    words = handle.words(found.value)
    return _answer(of, handle, sets, spot, words, stop=stop and stop.words, bound=bound)


def _near(
    of: Here, handle: Handle, originals: Mapping[int, Original], to: float, near_px: float
) -> Stopping | None:
    if not near_px:
        return None
    within = to - near_px, to + near_px
    stops = stops_of(of, handle, wider_at(of, handle, originals), within)
    nearest = min(stops, key=lambda s: abs(s.at - to), default=None)
    return nearest if nearest is not None and abs(nearest.at - to) <= near_px else None


def _typed(of: Here, handle: Handle, value: float) -> Pulled:
    if not handle.least <= value <= handle.most:
        bound = handle.least if value < handle.least else handle.most
        side = "least" if value < handle.least else "greatest"
        raise InvalidPlan(
            f"{handle.name}: {_figure(value)} cannot be had; {_figure(bound)} is the {side} here.",
            field="value",
        )
    try:
        sets = handle.sets(rounded(handle, value))
        spot = of.with_sets(sets, handle.part)
        handle.at(spot)
    except ValidationError as problem:
        raise InvalidPlan(sentence_of(problem), field="value") from None
    return _answer(of, handle, sets, spot, handle.words(value))


def _figure(value: float) -> str:
    """As few digits as tell a bound from nothing."""
    return number(float(f"{value:.3g}")).replace("-", "−")


def _taken_back(
    of: Here, handle: Handle, originals: Mapping[int, Original], stop: Stopping
) -> Pulled:
    field = field_of(handle)
    there = again(of, without(of, handle, field), originals)
    same = there.handle(handle.id)
    found = _answer(there, same, Sets(), there.spot, same.words(same.value), stop=stop.words)
    return found.model_copy(update={"gone": (field,)})


def _why_stopped(of: Here, handle: Handle, found: Solved) -> str:
    """In a sentence."""
    if found.refused:
        return found.refused
    value = found.value
    if abs(value - handle.least) < max(handle.step, 1e-6):
        return f"{handle.name}: {handle.words(handle.least)} is the least."
    if abs(value - handle.most) < max(handle.step, 1e-6):
        return f"{handle.name}: {handle.words(handle.most)} is the greatest."
    rule = of.spot.cells[of.part].effective.height if handle.id == "height" else None
    at = of.layout.frame(of.with_sets(handle.sets(value), handle.part), of.part).H[0, 0]
    for bound, word in (("greatest_px", "greatest"), ("least_px", "least")):
        px = getattr(rule, bound, None)
        if px is not None and abs(float(at) - px) < 1:
            return f"Its {word} height, {number(px)} px, holds it here. Pull that first."
    return "It stops here: what is in it, or beside it, needs the room."


def _answer(
    of: Here,
    handle: Handle,
    sets: Sets,
    spot: Spot,
    words: str,
    *,
    stop: str | None = None,
    bound: str | None = None,
) -> Pulled:
    return Pulled(
        treatment={k: _json(v) for k, v in sets.treatment.items()},
        layout=dict(sets.layout),
        of_all=handle.part is None,
        part=handle.part or 0,
        gone=(),
        at=round(handle.at(spot), 3),
        words=words,
        stop=stop,
        bound=bound,
        told=told(of.part_in(spot, of.part)),
    )


def _json(value: Any) -> Any:
    return value.model_dump(mode="json") if isinstance(value, BaseModel) else value
