"""All parts of a placement in all spans, computed over every width. What did not change since an
earlier plan is taken from there."""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from threading import Lock
from typing import NamedTuple

import numpy as np

from skypane.errors import InvalidPlan
from skypane.layouts import Frame, Layout, OfLayout, Spot, layout_of
from skypane.model import (
    Container,
    HeightRange,
    Item,
    Original,
    Placement,
    Role,
    Site,
    Typeface,
    Words,
)
from skypane.shown.nouns import PartPlan, Plan, Setting, SpanPlan
from skypane.shown.parts import (
    NoSize,
    cell_of,
    plan_part,
)
from skypane.treatments import (
    ALL,
    NAMED,
    Effective,
    layout_values,
    resolve,
)
from skypane.values import Noun
from skypane.widths.spans import Span, spans_of


def plan(site: Site, placement: Placement, originals: Mapping[int, Original]) -> Plan:
    """All parts in all spans. Raises InvalidPlan where a frame has no size or an original is
    missing.

    What did not change since an earlier plan is taken from there.
    """
    layout = layout_of(placement)
    resolved = resolve(site, placement)
    values = layout_values(site, placement)
    states = {i: originals[i].model_dump_json() for i in placement.original_ids if i in originals}
    computed: list[_Computed] = []
    for span in spans_of(site):
        held = tuple(of_part[span.letter] for of_part in resolved)
        for index, (e, origin) in enumerate(held):
            if e.original is not None and e.original not in originals:
                raise InvalidPlan(
                    f"Span {span.letter} asks for an original that is not in this site. Choose"
                    " another.",
                    field=_field(index, origin["original"], "original"),
                )
        said = values[span.letter]
        try:
            own = layout.values(said.values)
            asked = _Asked(
                kind=layout.kind,
                span=span,
                container=site.container,
                heights=site.heights,
                values=own,
                held=layout.together(tuple(r.effective for r in held), own),
                originals=tuple(states.get(r.effective.original or -1) for r in held),
                about=tuple((part.role, part.item) for part in placement.parts),
                words=placement.words,
                typeface=site.typeface,
            )
            computed.append(_earlier.get(asked) or _compute(layout, asked, originals))
        except NoSize as problem:
            letter = held[problem.part].origin[problem.side] or span.letter
            field = _field(problem.part, letter, problem.side)
            raise InvalidPlan(str(problem), field=field) from None
        except OfLayout as problem:
            raise InvalidPlan(str(problem), field=said.source(problem.field, span.letter)) from None
    setting, before = _settings.like(site, placement, layout)
    parts = []
    for index, part in enumerate(placement.parts):
        spans = tuple(of_span.parts[index] for of_span in computed)
        origins = {letter: r.origin for letter, r in resolved[index].items()}
        old = before[index] if index < len(before) else None
        same = old and old.part == part and old.origins == origins and _are(old.spans, spans)
        parts.append(old if old and same else PartPlan(index, part, spans, origins))
    spots = tuple(c.spot for c in computed)
    found = Plan(site, placement, layout, tuple(parts), values, spots, setting)
    _settings.keep(found)
    return found


def _are(a: Sequence[object], b: Sequence[object]) -> bool:
    """Whether these are the same objects."""
    return len(a) == len(b) and all(x is y for x, y in zip(a, b, strict=True))


class _Settings:
    """The last settings of placements of many parts, with their parts as they were planned."""

    MOST = 24

    def __init__(self) -> None:
        self._kept: OrderedDict[Setting, tuple[PartPlan, ...]] = OrderedDict()
        self._lock = Lock()

    def like(
        self, site: Site, placement: Placement, layout: Layout
    ) -> tuple[Setting, tuple[PartPlan, ...]]:
        """An equal setting with its parts, or a new one."""
        bare = placement.model_copy(update={"parts": ()})
        if not layout.has_items:
            return Setting(site, bare), ()
        with self._lock:
            for known, parts in reversed(self._kept.items()):
                if known.bare.name == bare.name and known.bare == bare and known.site == site:
                    return known, parts
        return Setting(site, bare), ()

    def keep(self, found: Plan) -> None:
        if not found.layout.has_items:
            return
        with self._lock:
            self._kept[found.setting] = found.parts
            self._kept.move_to_end(found.setting)
            while len(self._kept) > self.MOST:
                self._kept.popitem(last=False)


_settings = _Settings()


def _field(part: int, source: str, field: str) -> str:
    """Where in a placement a value is set."""
    if source.startswith(NAMED):
        return "frame"
    letter = source.removeprefix(ALL)
    holder = "common" if source.startswith(ALL) else f"parts.{part}.treatments"
    return f"{holder}.{letter}.{field}"


class _Asked(NamedTuple):
    """All that the computed parts of one span depend on."""

    kind: str
    span: Span
    container: Container
    heights: tuple[HeightRange, ...]
    values: Noun
    held: tuple[Effective, ...]
    originals: tuple[str | None, ...]
    about: tuple[tuple[Role | None, Item | None], ...]
    words: Words | None
    typeface: Typeface

    @property
    def bare(self) -> _Asked:
        """The same without its parts."""
        return self._replace(held=(), originals=(), about=())


class _Computed(NamedTuple):
    """One span with all its parts, and what it was computed for; `shows` is how many of them
    do."""

    asked: _Asked
    spot: Spot
    parts: tuple[SpanPlan, ...]
    shows: int

    def same(
        self, asked: _Asked, spot: Spot, shows: int, index: int, frame: Frame
    ) -> SpanPlan | None:
        """A part that nothing has changed for: neither it, nor its frame, nor the values of its
        kind."""
        if index >= len(self.parts) or self.asked.originals[index] != asked.originals[index]:
            return None
        old = self.parts[index]
        is_same = self.spot.cells[index] == spot.cells[index] and self.shows == shows
        is_same = is_same and all(
            a is b or np.array_equal(a, b) for a, b in zip(old.frame, frame, strict=True)
        )
        return old if is_same else None


class _Earlier:
    """The spans that were computed last, for as long as others are not asked for more."""

    MOST = 96

    def __init__(self) -> None:
        self._kept: OrderedDict[_Asked, _Computed] = OrderedDict()
        self._last: OrderedDict[_Asked, _Computed] = OrderedDict()
        self._lock = Lock()

    def get(self, asked: _Asked) -> _Computed | None:
        with self._lock:
            found = self._kept.get(asked)
            if found is not None:
                self._kept.move_to_end(asked)
                self._last[asked.bare] = found
            return found

    def like(self, asked: _Asked) -> _Computed | None:
        """The last one whose span and values were the same, whatever its parts were."""
        with self._lock:
            return self._last.get(asked.bare)

    def keep(self, computed: _Computed) -> None:
        with self._lock:
            for known, key in ((self._kept, computed.asked), (self._last, computed.asked.bare)):
                known[key] = computed
                known.move_to_end(key)
                while len(known) > self.MOST:
                    known.popitem(last=False)


_earlier = _Earlier()


def _compute(
    layout: Layout,
    asked: _Asked,
    originals: Mapping[int, Original],
) -> _Computed:
    shown = [originals[e.original] if e.original is not None else None for e in asked.held]
    spot = Spot(
        span=asked.span,
        heights=asked.heights,
        container=asked.container,
        cells=tuple(
            cell_of(e, original, role, item)
            for e, original, (role, item) in zip(asked.held, shown, asked.about, strict=True)
        ),
        values=asked.values,
        words=asked.words,
        typeface=asked.typeface,
    )
    before = _earlier.like(asked) if layout.has_items else None
    shows = len(spot.shown)
    parts = []
    frames = _frames_of(before, spot) or layout.frames(spot)
    for i, (original, frame) in enumerate(zip(shown, frames, strict=True)):
        same = before.same(asked, spot, shows, i, frame) if before else None
        parts.append(same or plan_part(layout, spot, i, original, frame))
    computed = _Computed(asked, spot, tuple(parts), shows)
    _earlier.keep(computed)
    return computed


def _frames_of(before: _Computed | None, spot: Spot) -> Sequence[Frame] | None:
    """The frames of a span of many items as they were, where nothing has changed that they follow
    from; None where something has."""
    if before is None or len(before.spot.cells) != len(spot.cells):
        return None
    pairs = zip(before.spot.cells, spot.cells, strict=True)
    if any(a.facts != b.facts for a, b in pairs):
        return None
    return [p.frame for p in before.parts]
