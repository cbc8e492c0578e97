"""All parts of a placement in all spans, computed over every width. What did not change since an
earlier plan is taken from there."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple, TypeVar

import numpy as np

from skypane.errors import InvalidPlan
from skypane.handing_down import Held
from skypane.layouts import Cell, Frame, Layout, OfLayout, Spot, layout_of
from skypane.model import Original, Part, Placement, Site
from skypane.remembered import Remembered
from skypane.shown.nouns import PartPlan, Plan, Setting, SpanPlan
from skypane.shown.parts import NoSize, cell_of, plan_part
from skypane.shown.variants import USUALLY, Chosen, chosen_for, variant_part
from skypane.treatments import (
    Effective,
    Resolved,
    held_of_kind,
    on_its_own,
    resolve,
)
from skypane.widths.spans import Span, spans_of

Originals = Mapping[int, Original]


def plan(site: Site, placement: Placement, originals: Originals, scrollbar_px: float = 0) -> Plan:
    """All parts in all spans. `scrollbar_px` is what a classic scrollbar takes of the page, in CSS
    px. Raises InvalidPlan where a frame has no size or an original is missing.

    Parts that stand in for others are computed in the placement as it is while their conditions
    hold. What did not change since an earlier plan is taken from there.
    """
    layout, usual = layout_of(placement), placement.usual
    variants = placement.parts[len(usual) :]
    if not variants:
        return _planned(layout, site, placement, originals, scrollbar_px)
    alone = placement.model_copy(update={"parts": usual})
    found = _planned(layout, site, alone, originals, scrollbar_px)
    resolved = resolve(site, placement)
    under = {
        when: _planned(
            layout, site, alone, originals, scrollbar_px, chosen_for(placement, resolved, when)
        )
        for when in dict.fromkeys(v.when for v in variants)
    }
    parts = [
        variant_part(index, part, found, under[part.when], resolved[index])
        for index, part in enumerate(variants, len(usual))
    ]
    return replace(found, placement=placement, parts=(*found.parts, *parts))


def _planned(
    layout: Layout,
    site: Site,
    placement: Placement,
    originals: Originals,
    scrollbar_px: float,
    chosen: Chosen = USUALLY,
) -> Plan:
    """Parts that stand in for no other one, or what is `chosen` in their place."""
    setting = Setting(site, placement.model_copy(update={"parts": ()}), scrollbar_px, chosen.when)
    before = _like(setting) if layout.is_large else None
    is_same = before is not None and before.is_of(setting)
    if before:
        asked = placement.original_ids | chosen.original_ids
        there = {i: originals[i] for i in asked if i in originals}
        placement, originals = before.again(placement, there)
    resolved = chosen.resolved or _resolved(site, placement, before if is_same else None)
    values = held_of_kind(site, placement)
    computed: list[_Computed] = []
    for at, span in enumerate(spans_of(site)):
        held = [of_part[span.letter] for of_part in resolved]
        own_held = values[span.letter]
        try:
            own = layout.values(own_held.values)
            known = [originals.get(r.effective.original or 0) for r in held]
            # under words a picture keeps its colour; what lies on it, as a mark, has none
            bare_ = (
                r.effective if layout.has_words and part.role is None else on_its_own(r, o)
                for part, r, o in zip(placement.parts, held, known, strict=True)
            )
            effective = layout.together(tuple(bare_), own)
            shown = _shown(effective, originals)
            old = before.computed[at] if before else None
            spot = Spot(
                span=span,
                heights=site.heights,
                container=site.container,
                cells=_cells(placement.parts, effective, shown, old),
                values=own,
                words=placement.words,
                typeface=site.typeface,
                level=layout.level(site, placement),
                scrollbar_px=scrollbar_px,
            )
            computed.append(_of_span(layout, spot, shown, old))
        except _Missing as missing:
            raise InvalidPlan(
                f"Span {span.letter} asks for an original that is not in this site. Choose"
                " another.",
                field=_where(site, placement, held, chosen, span, missing.part, "original"),
            ) from None
        except NoSize as problem:
            raise InvalidPlan(
                str(problem),
                field=_where(site, placement, held, chosen, span, problem.part, problem.side),
            ) from None
        except OfLayout as problem:
            raise InvalidPlan(
                str(problem), field=_kind_field(own_held, span, problem.field)
            ) from None
    found = Plan(
        site=site,
        placement=placement,
        layout=layout,
        parts=_parts(placement, computed, resolved, before if is_same else None),
        held_of_kind=values,
        spots=tuple(c.spot for c in computed),
        setting=before.plan.setting if before and is_same else setting,
    )
    if layout.is_large:
        _latest.keep(found.setting, _Planned(found, resolved, tuple(computed)))
    return found


def _where(
    site: Site,
    placement: Placement,
    held: Sequence[Resolved],
    chosen: Chosen,
    span: Span,
    part: int,
    field: str,
) -> str:
    """Where in a placement a value of a part is set; in the span itself where it is a default."""
    letter = span.letter
    origin, place = held[part].origin.get(field), chosen.place(part, letter)
    if origin and origin.of == "usual":
        origin, place = resolve(site, placement)[part][letter].origin[field], part
    if origin is None:
        return f"parts.{place}.treatments.{letter}.{field}"
    if origin.of == "frame":
        return "frame"
    holder = "common" if origin.of == "all" else f"parts.{place}.treatments"
    return f"{holder}.{origin.letter}.{field}"


def _kind_field(held: Held, span: Span, field: str | None) -> str:
    """Where in a placement a value of its kind is set: in the span itself where it is a default."""
    origin = held.origin.get((field or "").split(".")[0])
    return f"layout.{origin.letter if origin else span.letter}" + (f".{field}" if field else "")


class _Computed(NamedTuple):
    """One span with all its parts, and the originals that they show."""

    spot: Spot
    originals: tuple[Original | None, ...]
    parts: tuple[SpanPlan, ...]


class _Planned(NamedTuple):
    """A plan of many items with what it was made of."""

    plan: Plan
    resolved: tuple[dict[str, Resolved], ...]
    computed: tuple[_Computed, ...]

    def is_of(self, other: Setting) -> bool:
        """Whether all that is said beside the parts is the same."""
        setting = self.plan.setting
        # the name first: it tells most of them apart at once
        return (
            setting.bare.name == other.bare.name
            and (setting.scrollbar_px, setting.when) == (other.scrollbar_px, other.when)
            and setting.bare == other.bare
            and _equal(setting.site, other.site)
        )

    def again(
        self, placement: Placement, originals: Originals
    ) -> tuple[Placement, dict[int, Original]]:
        """Another placement and its originals, with what is equal to what is here as the very same
        objects: that it has stayed need not be found out span by span."""
        here = {o.id: o for of_span in self.computed for o in of_span.originals if o is not None}
        was = dict(enumerate(self.plan.placement.parts))
        parts = tuple(_known(was.get(i), part) for i, part in enumerate(placement.parts))
        told = placement.model_copy(update={"parts": parts})
        return told, {i: _known(here.get(i), o) for i, o in originals.items()}


_Value = TypeVar("_Value")


def _known(old: _Value | None, new: _Value) -> _Value:
    return old if old is not None and _equal(old, new) else new


def _equal(a: object, b: object) -> bool:
    return a is b or a == b


# -- what holds and what is there ---------------------------------------------------------


def _resolved(
    site: Site, placement: Placement, before: _Planned | None
) -> tuple[dict[str, Resolved], ...]:
    """Per part and letter what holds there. Of parts that have stayed it is known `before`, where
    nothing else is said of all of them. Raises InvalidPlan."""
    if before is None:
        return resolve(site, placement)
    was = dict(enumerate(zip(before.plan.placement.parts, before.resolved, strict=True)))
    known = []
    for i, part in enumerate(placement.parts):
        old, held = was.get(i, (None, None))
        known.append(held if old is part else None)
    new = tuple(p for p, held in zip(placement.parts, known, strict=True) if held is None)
    found = iter(resolve(site, placement.model_copy(update={"parts": new})))
    return tuple(next(found) if held is None else held for held in known)


class _Missing(Exception):
    def __init__(self, part: int) -> None:
        super().__init__(part)
        self.part = part


def _shown(effective: Sequence[Effective], originals: Originals) -> tuple[Original | None, ...]:
    """The original of each part, None where none is asked for. Raises _Missing."""
    asked = [e.original for e in effective]
    for index, id_ in enumerate(asked):
        if id_ is not None and id_ not in originals:
            raise _Missing(index)
    return tuple(None if id_ is None else originals[id_] for id_ in asked)


def _cells(
    parts: Sequence[Part],
    effective: Sequence[Effective],
    shown: Sequence[Original | None],
    old: _Computed | None,
) -> tuple[Cell, ...]:
    """All parts of a span as its layout sees them; those that have stayed are the very same."""
    cells = []
    for i, (part, e, original) in enumerate(zip(parts, effective, shown, strict=True)):
        if old and i < len(old.spot.cells):
            cell = old.spot.cells[i]
            if (
                _equal(cell.effective, e)
                and _equal(old.originals[i], original)
                and cell.role == part.role
                and _equal(cell.item, part.item)
            ):
                cells.append(cell)
                continue
        cells.append(cell_of(e, original, part.role, part.item))
    return tuple(cells)


# -- one span -----------------------------------------------------------------------------


def _of_span(
    layout: Layout,
    spot: Spot,
    shown: tuple[Original | None, ...],
    old: _Computed | None,
) -> _Computed:
    """All parts of a span. Raises NoSize and OfLayout."""
    if not layout.is_large:
        found = _earlier.get((layout.kind, spot, shown))
        if found is None:
            found = _anew(layout, spot, shown)
            _earlier.keep((layout.kind, spot, shown), found)
        return found
    if old is None or old.spot.bare != spot.bare:
        return _anew(layout, spot, shown)
    spot.seen_after(old.spot)
    is_as_it_was = spot.facts is old.spot.facts
    frames = [p.frame for p in old.parts] if is_as_it_was else layout.frames(spot)
    parts = []
    for i, frame in enumerate(frames):
        if _stays(old, spot, shown, i, frame):
            parts.append(old.parts[i])
        else:
            parts.append(plan_part(layout, spot, i, shown[i], frame))
    return _Computed(spot, shown, tuple(parts))


def _anew(layout: Layout, spot: Spot, shown: tuple[Original | None, ...]) -> _Computed:
    parts = tuple(
        plan_part(layout, spot, i, original, frame)
        for i, (original, frame) in enumerate(zip(shown, layout.frames(spot), strict=True))
    )
    return _Computed(spot, shown, parts)


def _stays(
    old: _Computed, spot: Spot, shown: Sequence[Original | None], i: int, frame: Frame
) -> bool:
    """Whether nothing has changed for a part: neither it, nor what it shows, nor its frame."""
    if i >= len(old.parts) or not _equal(old.originals[i], shown[i]):
        return False
    cells = old.spot.cells[i], spot.cells[i]
    return _equal(*cells) and all(
        a is b or np.array_equal(a, b) for a, b in zip(old.parts[i].frame, frame, strict=True)
    )


#: What one part takes at one width with all that hangs on it, in bytes, among few parts and among
#: many, which share most of it; measured by what a process gave back when it let them go, after 260
#: readings of the demo.
_BYTES_A_WIDTH, _BYTES_A_WIDTH_OF_MANY = 2900, 90
#: So much is remembered of each.
MOST_BYTES, MOST_BYTES_OF_MANY = 75_000_000, 45_000_000


def _widths_of(computed: _Computed) -> int:
    return len(computed.parts) * len(computed.spot.viewports.widths)


def _weight_of_few(computed: _Computed) -> int:
    return _widths_of(computed) * _BYTES_A_WIDTH


#: The spans of few parts that were computed last.
_earlier: Remembered[tuple[str, Spot, tuple[Original | None, ...]], _Computed] = Remembered(
    MOST_BYTES, _weight_of_few
)


# -- many parts ---------------------------------------------------------------------------


def _parts(
    placement: Placement,
    computed: Sequence[_Computed],
    resolved: Sequence[dict[str, Resolved]],
    before: _Planned | None,
) -> tuple[PartPlan, ...]:
    """Every part in its spans. One for which nothing has changed, nor anything that is said of all
    of them, is that of the plan `before`."""
    known = before.plan.parts if before else ()
    parts = []
    for index, part in enumerate(placement.parts):
        spans = tuple(of_span.parts[index] for of_span in computed)
        old = known[index] if index < len(known) else None
        if old and _equal(old.part, part) and _are(old.spans, spans):
            parts.append(old)
        else:
            held = {letter: r.held for letter, r in resolved[index].items()}
            parts.append(PartPlan(index, part, spans, held))
    return tuple(parts)


def _are(a: Sequence[object], b: Sequence[object]) -> bool:
    """Whether these are the same objects."""
    return len(a) == len(b) and all(x is y for x, y in zip(a, b, strict=True))


def _weight_of_many(planned: _Planned) -> int:
    return sum(map(_widths_of, planned.computed)) * _BYTES_A_WIDTH_OF_MANY


#: The last plans of placements of many parts, one for each setting: while a value of all is
#: dragged, each step is one.
_latest: Remembered[Setting, _Planned] = Remembered(MOST_BYTES_OF_MANY, _weight_of_many)


def _like(setting: Setting) -> _Planned | None:
    """The last plan of an equal setting, else the last one of the same name and kind with as many
    spans."""
    found = _latest.latest_first()
    same = next((p for p in found if p.is_of(setting)), None)
    return same or next((p for p in found if _is_near(p.plan, setting)), None)


def _is_near(known: Plan, setting: Setting) -> bool:
    return (
        known.placement.name == setting.bare.name
        and known.layout.kind == setting.bare.kind
        and len(known.spots) == len(spans_of(setting.site))
    )
