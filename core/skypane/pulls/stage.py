"""What stands on the stage at one viewport, and what can be taken hold of."""

from __future__ import annotations

from collections.abc import Mapping

from skypane.errors import InvalidPlan
from skypane.layouts import Handle, box_left
from skypane.model import ColumnsWidth, FullWidth, Original, Placement, ShareWidth
from skypane.pulls.here import Here, again
from skypane.pulls.nouns import FirstWidth, HandleReading, StageReading
from skypane.pulls.solved import solved
from skypane.pulls.stops import stops_of
from skypane.pulls.told import told
from skypane.treatments import with_fields
from skypane.widths.frames import holder_widths

#: How far a hand may go, in CSS px beyond what stands on the stage.
FAR_PX = 8000.0


def stage(of: Here, originals: Mapping[int, Original], densest: float) -> StageReading:
    """Everything of the stage at once. `densest`: the greatest density that is offered."""
    part = of.part
    p = of.part_in(of.spot, part)
    handles = of.handles()
    left = box_left(of.spot)
    wide = float(of.layout.box_widths(of.spot)[0])
    page = float(of.spot.page_widths[0])
    inside = float(holder_widths("container", of.spot.page_widths, of.spot.container)[0])
    original = of.shown[part]
    return StageReading(
        left=left,
        wide=wide,
        high=float(p.frame.y[0, 0] + p.H[0, 0]),
        container=(round((page - inside) / 2, 2), round((page + inside) / 2, 2)),
        columns=_columns(of, page),
        sharp_to_px=None if original is None else round(original.width_px / densest, 2),
        first=() if _is_said(of) else FIRST_WIDTHS,
        told=told(p),
        handles=tuple(
            reading
            for h in _in_order(of, handles)
            if (reading := _reading(of, h, originals)).at_most - reading.at_least > 0.5
        ),
    )


#: What most spots are (common practice).
FIRST_WIDTHS = (
    FirstWidth(words="the page", width=FullWidth()),
    FirstWidth(words="the container", width=ShareWidth(percent=100, of="container")),
    FirstWidth(words="half of it", width=ShareWidth(percent=50, of="container")),
    FirstWidth(words="a third of it", width=ShareWidth(percent=33.3333, of="container")),
)


def _is_said(of: Here) -> bool:
    """Whether anybody has said how wide the spot is, in any span."""
    return any("width" in held.origin for held in of.resolved[of.part].values())


def _in_order(of: Here, handles: list[Handle]) -> list[Handle]:
    """In reading order: by where they begin, from top to bottom, then from the left."""

    def place(handle: Handle) -> tuple[float, float]:
        edge = handle.edge(of.spot)
        return round(edge.y0), edge.x0

    return sorted(handles, key=place)


def _columns(of: Here, page: float) -> tuple[tuple[float, float], ...]:
    rule = of.spot.cells[of.part].effective.width
    if not isinstance(rule, ColumnsWidth):
        return ()
    holder = float(holder_widths(rule.of, of.spot.page_widths, of.spot.container)[0])
    first = (page - holder) / 2
    one = (holder - (rule.columns - 1) * rule.gutter_px) / rule.columns
    starts = [first + n * (one + rule.gutter_px) for n in range(rule.columns)]
    return tuple((round(x, 2), round(x + one, 2)) for x in starts)


def _reading(of: Here, handle: Handle, originals: Mapping[int, Original]) -> HandleReading:
    edge, field = handle.edge(of.spot), field_of(handle)
    ends = [solved(of, handle, edge.along(handle.axis) + way * FAR_PX).at for way in (-1, 1)]
    letter = of.span.letter
    return HandleReading(
        id=handle.id,
        name=handle.name,
        axis=handle.axis,
        x0=round(edge.x0, 3),
        y0=round(edge.y0, 3),
        x1=round(edge.x1, 3),
        y1=round(edge.y1, 3),
        value=round(handle.value, 4),
        unit=handle.unit,
        step=handle.step,
        said=handle.words(handle.value),
        at_least=round(min(ends), 2),
        at_most=round(max(ends), 2),
        is_own=field in set_in(of, handle, letter),
        stops=tuple(s.read for s in stops_of(of, handle, wider_at(of, handle, originals))),
    )


def field_of(handle: Handle) -> str:
    """The field that a handle sets."""
    sets = handle.sets(handle.value)
    return next(iter((*sets.treatment, *sets.layout)))


def set_in(of: Here, handle: Handle, letter: str) -> frozenset[str]:
    """The fields that a span itself sets, of those that a handle may set."""
    if handle.sets(handle.value).layout:
        return of.of_kind[letter].set_in(letter)
    index = of.part if handle.part is None else handle.part
    return of.resolved[index][letter].handed.set_in(letter)


def wider_at(of: Here, handle: Handle, originals: Mapping[int, Original]) -> float | None:
    """Where an edge is with the value that the wider span hands down; None where this one has it
    already, or there is no wider one."""
    letter, field = of.span.letter, field_of(handle)
    if of.wider() is None or field not in set_in(of, handle, letter):
        return None
    try:
        there = again(of, without(of, handle, field), originals)
        same = next((h for h in there.handles() if h.id == handle.id), None)
    except InvalidPlan:
        return None
    return None if same is None else same.at(there.spot)


def without(of: Here, handle: Handle, field: str) -> Placement:
    """The placement whose span takes back what it sets of a handle's field."""
    letter, placement = of.span.letter, of.placement
    if handle.sets(handle.value).layout:
        own = {k: v for k, v in placement.layout.get(letter, {}).items() if k != field}
        return placement.model_copy(update={"layout": {**placement.layout, letter: own}})
    if handle.part is None:
        common = with_fields(placement.common, letter, {field: None})
        return placement.model_copy(update={"common": common})
    parts = list(placement.parts)
    part = parts[handle.part]
    treatments = with_fields(part.treatments, letter, {field: None})
    parts[handle.part] = part.model_copy(update={"treatments": treatments})
    return placement.model_copy(update={"parts": tuple(parts)})
