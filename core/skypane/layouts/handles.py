"""What can be taken hold of and pulled: edges and points behind which a rule stands.

A kind says of each handle where it is, what value it has there, and what is set for another value.
Where a value puts it is found by laying the span out with that value, so that what is pulled and
what is delivered cannot differ.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal, NamedTuple

from skypane.layouts.fields import facts_of
from skypane.layouts.spot import Spot
from skypane.model import HeightRule, NaturalHeight, RatioHeight
from skypane.model.frame import USUAL_RATIOS
from skypane.model.on_picture import PLACES
from skypane.numerals import number
from skypane.values import MOST_PX

Axis = Literal["x", "y"]


class Edge(NamedTuple):
    """A line that is pulled across itself, or a point, from the page's left edge and the top of the
    placement's box, in CSS px at one viewport."""

    x0: float
    y0: float
    x1: float
    y1: float

    def along(self, axis: Axis) -> float:
        """Where it is along the axis that it is pulled along."""
        return self.x0 if axis == "x" else self.y0


class Sets(NamedTuple):
    """What is set in the span: fields of a treatment, of the part or of all parts, and values of
    the kind."""

    treatment: Mapping[str, Any] = {}
    layout: Mapping[str, Any] = {}


class Stop(NamedTuple):
    """A value at which a hand likes to stop, with what it is in words."""

    sets: Sets
    words: str


@dataclass(frozen=True)
class Handle:
    """Sets one value of a spot at one viewport. `id` is the same in every span; `part` is the part
    whose treatment is set, None for what is of all of them.

    `edge` tells where it is in a spot with any other value; `value` is the one that it has, in
    `unit`; `sets` what is set for another. Values go from `least` to `most`, in steps of `step`, 0
    for any; from one to the other the edge moves one way only. `words` says a value; `stops` are
    where a hand likes to stop.
    """

    id: str
    name: str
    axis: Axis
    unit: str
    value: float
    least: float
    most: float
    edge: Callable[[Spot], Edge]
    sets: Callable[[float], Sets]
    words: Callable[[float], str]
    step: float = 0
    part: int | None = None
    stops: tuple[Stop, ...] = ()

    def at(self, spot: Spot) -> float:
        """Where it is along its axis, in CSS px."""
        return self.edge(spot).along(self.axis)


def with_sets(spot: Spot, sets: Sets, part: int | None) -> Spot:
    """A spot as its layout would see it with other values."""
    cells = spot.cells
    if sets.treatment:
        cells = tuple(
            c._replace(effective=replace(c.effective, **sets.treatment))
            if part is None or i == part
            else c
            for i, c in enumerate(cells)
        )
    values = spot.values
    if sets.layout:
        # a value that cannot be is refused as it is where somebody types it
        values = type(values).model_validate({**values.model_dump(), **sets.layout})
    return replace(spot, cells=cells, values=values)


def value_handle(
    spot: Spot,
    field: str,
    name: str,
    axis: Axis,
    edge: Callable[[Spot], Edge],
    *,
    step: float = 0.01,
    least: float | None = None,
    most: float | None = None,
) -> Handle:
    """A handle of one number of the kind's own, with the unit and the bounds that it has when it is
    typed. `least` and `most` are narrower ones."""
    facts = facts_of(type(spot.values), field)
    whole = facts.whole
    unit = facts.unit

    def said(value: float) -> str:
        shown = number(round(value, 2))
        return f"{shown} {unit}" if unit else _counted(round(value), facts.name)

    def sets(value: float) -> Sets:
        return Sets(layout={field: round(value) if whole else round(value, 2)})

    return Handle(
        id=field,
        name=name,
        axis=axis,
        unit=unit,
        value=float(getattr(spot.values, field)),
        least=max(v for v in (facts.least, least, 0.0) if v is not None),
        most=min(v for v in (facts.most, most, float(MOST_PX)) if v is not None),
        edge=edge,
        sets=sets,
        words=said,
        step=1 if whole else step,
    )


def choice_handle(
    spot: Spot,
    field: str,
    choices: Sequence[str],
    name: str,
    axis: Axis,
    edge: Callable[[Spot], Edge],
    *,
    id_: str = "",
) -> Handle:
    """A handle of a value that is one of a few, in the order in which they stand along its axis.
    `id_` tells those apart that are two of one value."""
    now = getattr(spot.values, field)
    return Handle(
        id=id_ or field,
        name=name,
        axis=axis,
        unit="",
        value=float(choices.index(now)) if now in choices else 0.0,
        least=0,
        most=len(choices) - 1,
        edge=edge,
        sets=lambda v: Sets(layout={field: choices[round(v)]}),
        words=lambda v: choices[round(v)],
        step=1,
    )


def place_handles(
    spot: Spot, field: str, name: str, middle: Callable[[Spot], Edge]
) -> Iterable[Handle]:
    """Of something that stands at one of the nine places: across, and down."""
    place = PLACES.index(getattr(spot.values, field))
    row, column = divmod(place, 3)
    across = [PLACES[3 * row + n] for n in range(3)]
    down = [PLACES[3 * n + column] for n in range(3)]
    yield choice_handle(spot, field, across, f"{name}, across", "x", middle, id_=f"{field}.x")
    yield choice_handle(spot, field, down, f"{name}, down", "y", middle, id_=f"{field}.y")


def _counted(n: int, things: str) -> str:
    """“2 columns”, “1 column”, “1 slide at a time”."""
    first, space, rest = things.partition(" ")
    return f"{n} {first.removesuffix('s') if n == 1 else first}{space}{rest}"


def ratio_stops() -> Iterable[tuple[HeightRule, str]]:
    """The picture's own ratio, and the usual ones, each in words."""
    yield NaturalHeight(), "the picture's own ratio"
    for w, h in USUAL_RATIOS:
        yield RatioHeight(w=w, h=h), f"{w}:{h}"
