"""All parts of a placement in all spans, computed over every width."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple

import numpy as np

from skypane.errors import InvalidPlan
from skypane.handing_down import Handed
from skypane.layouts import Cell, Frame, Layout, OfLayout, Spot, layout_of
from skypane.model import Feature, Original, Part, Placement, Site
from skypane.shown.computed import Computed, Planned, is_equal
from skypane.shown.nouns import PartPlan, Plan, Setting
from skypane.shown.parts import NoSize, cell_of, plan_part
from skypane.shown.store import STORE, Store
from skypane.shown.variants import USUALLY, Chosen, chosen_for, together, variant_part
from skypane.treatments import (
    Effective,
    Resolved,
    handed_of_kind,
    on_its_own,
    resolve,
)
from skypane.widths.spans import Span, spans_of

Originals = Mapping[int, Original]


def plan(
    site: Site,
    placement: Placement,
    originals: Originals,
    scrollbar_px: float = 0,
    store: Store = STORE,
) -> Plan:
    """All parts in all spans. `scrollbar_px` is what a classic scrollbar takes of the page, in CSS
    px. Raises InvalidPlan where a frame has no size or an original is missing.

    Parts that stand in for others are computed in the placement as it is while their conditions
    hold. What has stayed since an earlier plan in the `store` is the same object.
    """
    found = _plan(site, placement, originals, scrollbar_px, store)
    return replace(found, substitute=_substitute(placement, originals))


def _plan(
    site: Site, placement: Placement, originals: Originals, scrollbar_px: float, store: Store
) -> Plan:
    layout, usual = layout_of(placement), placement.usual
    variants = placement.parts[len(usual) :]
    named = [*(v.when for v in variants), *(u.when for u in placement.layout_under)]
    if layout.has_words and placement.words is not None and site.colours_dark is not None:
        # words may stand on the page
        named.append(("dark",))

    def planned(placement: Placement, chosen: Chosen = USUALLY) -> Plan:
        bare = placement.model_copy(update={"parts": ()})
        setting = Setting(site, bare, scrollbar_px, chosen.when)
        before = store.like(setting) if layout.is_large else None
        found = _planned(layout, setting, placement, originals, chosen, before, store)
        if layout.is_large:
            store.keep(found)
        return found.plan

    if not named:
        return planned(placement)
    alone = placement.model_copy(update={"parts": usual})
    found, resolved = planned(alone), resolve(site, placement)
    # what is around the parts may follow from several of them at once
    whens = together(named) if layout.box else dict.fromkeys(named)
    under = {when: planned(alone, chosen_for(placement, resolved, when)) for when in whens}
    parts = [
        variant_part(index, part, found, under[part.when], resolved[index])
        for index, part in enumerate(variants, len(usual))
    ]
    return replace(
        found,
        placement=placement,
        parts=(*found.parts, *parts),
        under=under,
    )


class SpotOf(NamedTuple):
    """A span as its layout sees it, the original of each part, and what is set there by whom."""

    spot: Spot
    shown: tuple[Original | None, ...]
    resolved: tuple[Mapping[str, Resolved], ...]
    of_kind: Mapping[str, Handed]


def spot_of(
    layout: Layout,
    site: Site,
    placement: Placement,
    originals: Originals,
    span: Span,
    scrollbar_px: float = 0,
    *,
    seen: Span | None = None,
) -> SpotOf:
    """One span of parts that stand in for no other one, computed no further; at the widths of
    `seen` in place of its own. Raises InvalidPlan."""
    resolved, values = resolve(site, placement), handed_of_kind(site, placement)
    held = [of_part[span.letter] for of_part in resolved]
    around: tuple[float, tuple[Feature, ...]] = scrollbar_px, ()
    try:
        spot, shown = _spot(
            layout,
            site,
            placement,
            originals,
            held,
            values[span.letter],
            seen or span,
            around,
            None,
        )
    except _Missing as missing:
        raise _gone(span, f"parts.{missing.part}.treatments.{span.letter}.original") from None
    return SpotOf(spot, shown, resolved, values)


def _spot(
    layout: Layout,
    site: Site,
    placement: Placement,
    originals: Originals,
    held: Sequence[Resolved],
    own_held: Handed,
    span: Span,
    around: tuple[float, tuple[Feature, ...]],
    old: Computed | None,
) -> tuple[Spot, tuple[Original | None, ...]]:
    """A span as its layout sees it. `around`: what a scrollbar takes, and the conditions that hold.
    Raises _Missing and OfLayout."""
    scrollbar_px, when = around
    own = layout.values(own_held.values)
    known = [originals.get(r.effective.original or 0) for r in held]
    # under words a picture keeps its colour; what lies on it, as a mark, has none
    bare_ = (
        r.effective if layout.has_words and part.role is None else on_its_own(r, o)
        for part, r, o in zip(placement.parts, held, known, strict=True)
    )
    effective = layout.together(tuple(bare_), own)
    shown = _shown(effective, originals)
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
        page_ground=site.colours_under(when).ground,
    )
    return spot, shown


def _gone(span: Span, field: str) -> InvalidPlan:
    return InvalidPlan(
        f"Span {span.letter} asks for an original that is not in this site. Choose another.",
        field=field,
    )


def _substitute(placement: Placement, originals: Originals) -> Original | None:
    """Raises InvalidPlan where it is missing."""
    id_ = placement.substitute
    if id_ is not None and id_ not in originals:
        raise InvalidPlan(
            "What shows in place of pictures that do not come is not in this site. Choose another,"
            " in Code.",
            field="substitute",
        )
    return None if id_ is None else originals[id_]


def _planned(
    layout: Layout,
    setting: Setting,
    placement: Placement,
    originals: Originals,
    chosen: Chosen,
    before: Planned | None,
    store: Store,
) -> Planned:
    """Parts that stand in for no other one, or what is `chosen` in their place. What has stayed
    since the plan `before` is taken from there."""
    site = setting.site
    is_same = before is not None and before.is_of(setting)
    if before:
        asked = placement.original_ids | chosen.original_ids
        there = {i: originals[i] for i in asked if i in originals}
        placement, originals = before.again(placement, there)
    resolved = chosen.resolved or _resolved(site, placement, before if is_same else None)
    values = handed_of_kind(site, placement, chosen.when)
    computed: list[Computed] = []
    for at, span in enumerate(spans_of(site)):
        held = [of_part[span.letter] for of_part in resolved]
        own_held = values[span.letter]
        try:
            old = before.computed[at] if before else None
            around = setting.scrollbar_px, chosen.when
            spot, shown = _spot(
                layout, site, placement, originals, held, own_held, span, around, old
            )
            computed.append(_of_span(layout, spot, shown, old, store))
        except _Missing as missing:
            where = _where(site, placement, held, chosen, span, missing.part, "original")
            raise _gone(span, where) from None
        except NoSize as problem:
            raise InvalidPlan(
                str(problem),
                field=_where(site, placement, held, chosen, span, problem.part, problem.side),
            ) from None
        except OfLayout as problem:
            raise InvalidPlan(
                str(problem),
                field=_kind_field(placement, own_held, chosen, span, problem.field),
            ) from None
    found = Plan(
        site=site,
        placement=placement,
        layout=layout,
        parts=_parts(placement, computed, resolved, before if is_same else None),
        handed_of_kind=values,
        spots=tuple(c.spot for c in computed),
        setting=before.plan.setting if before and is_same else setting,
    )
    return Planned(found, resolved, tuple(computed))


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


def _kind_field(
    placement: Placement, held: Handed, chosen: Chosen, span: Span, field: str | None
) -> str:
    """Where in a placement a value of its kind is set: in the span itself where it is a default."""
    name = (field or "").split(".")[0]
    origin = held.origin.get(name)
    letter, where = origin.letter if origin else span.letter, "layout"
    if origin and origin.of != "usual":
        over = [
            i
            for i, u in enumerate(placement.layout_under)
            if set(u.when) <= set(chosen.when) and name in u.layout.get(letter, {})
        ]
        if over:
            most = max(over, key=lambda i: len(placement.layout_under[i].when))
            where = f"layout_under.{most}.layout"
    return f"{where}.{letter}" + (f".{field}" if field else "")


# -- what holds and what is there ---------------------------------------------------------


def _resolved(
    site: Site, placement: Placement, before: Planned | None
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
    old: Computed | None,
) -> tuple[Cell, ...]:
    """All parts of a span as its layout sees them; those that have stayed are the very same."""
    cells = []
    for i, (part, e, original) in enumerate(zip(parts, effective, shown, strict=True)):
        if old and i < len(old.spot.cells):
            cell = old.spot.cells[i]
            if (
                is_equal(cell.effective, e)
                and is_equal(old.originals[i], original)
                and cell.role == part.role
                and is_equal(cell.item, part.item)
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
    old: Computed | None,
    store: Store,
) -> Computed:
    """All parts of a span. Raises NoSize and OfLayout."""
    if not layout.is_large:
        key = (layout.kind, spot, shown)
        return store.span(key, lambda: _anew(layout, spot, shown))
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
    return Computed(spot, shown, tuple(parts))


def _anew(layout: Layout, spot: Spot, shown: tuple[Original | None, ...]) -> Computed:
    parts = tuple(
        plan_part(layout, spot, i, original, frame)
        for i, (original, frame) in enumerate(zip(shown, layout.frames(spot), strict=True))
    )
    return Computed(spot, shown, parts)


def _stays(
    old: Computed, spot: Spot, shown: Sequence[Original | None], i: int, frame: Frame
) -> bool:
    """Whether nothing has changed for a part: neither it, nor what it shows, nor its frame."""
    if i >= len(old.parts) or not is_equal(old.originals[i], shown[i]):
        return False
    cells = old.spot.cells[i], spot.cells[i]
    return is_equal(*cells) and all(
        a is b or np.array_equal(a, b) for a, b in zip(old.parts[i].frame, frame, strict=True)
    )


# -- many parts ---------------------------------------------------------------------------


def _parts(
    placement: Placement,
    computed: Sequence[Computed],
    resolved: Sequence[dict[str, Resolved]],
    before: Planned | None,
) -> tuple[PartPlan, ...]:
    """Every part in its spans. One for which nothing has changed, nor anything that is said of all
    of them, is that of the plan `before`."""
    known = before.plan.parts if before else ()
    parts = []
    for index, part in enumerate(placement.parts):
        spans = tuple(of_span.parts[index] for of_span in computed)
        old = known[index] if index < len(known) else None
        if old and is_equal(old.part, part) and _are(old.spans, spans):
            parts.append(old)
        else:
            held = {letter: r.handed for letter, r in resolved[index].items()}
            parts.append(PartPlan(index, part, spans, held))
    return tuple(parts)


def _are(a: Sequence[object], b: Sequence[object]) -> bool:
    """Whether these are the same objects."""
    return len(a) == len(b) and all(x is y for x, y in zip(a, b, strict=True))
