"""Frames and windows of every part, computed over every width.

The cut is what the files carry: all that shows at some width or viewport height of the span.
"""

from __future__ import annotations

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from threading import Lock
from typing import Literal, NamedTuple

import numpy as np

from skypane.errors import InvalidPlan
from skypane.geometry import Crop, Rect, inside, joined
from skypane.layouts import Cell, Frame, Layout, OfLayout, Spot, layout_of
from skypane.model import (
    Area,
    Container,
    Following,
    HeightRange,
    Item,
    NaturalHeight,
    Original,
    Part,
    Placement,
    Role,
    Site,
    Treatment,
    Typeface,
    Words,
)
from skypane.shown.fit import (
    Interval,
    Picture,
    Turns,
    Windows,
    binding,
    outside,
    picture_of,
    safe_area,
    turns_of,
    union,
    windows,
    windows_between,
)
from skypane.treatments import (
    ALL,
    NAMED,
    Effective,
    LayoutSaid,
    effective_crop,
    keeps_of,
    layout_values,
    resolve,
)
from skypane.values import Noun
from skypane.widths.frames import Floats, Viewports
from skypane.widths.spans import Span, spans_of
from skypane.widths.sums import width_sum

#: The frame of a picture that nobody has brought yet, where its ratio is asked for.
UNKNOWN_RATIO = (16, 9)


@dataclass(frozen=True, eq=False)
class SpanPlan:
    """One part in one span, computed: its frame at all widths (last axis) and viewport heights
    (first axis; one row where the frame does not depend on them)."""

    layout: Layout
    spot: Spot
    index: int  # of the part
    frame: Frame

    @property
    def span(self) -> Span:
        return self.spot.span

    @property
    def effective(self) -> Effective:
        return self.spot.cells[self.index].effective

    @cached_property
    def _viewports(self) -> Viewports:
        return self.spot.viewports

    @property
    def viewport_w(self) -> Floats:
        """Viewport widths, (widths,)."""
        return self._viewports.widths

    @property
    def viewport_h(self) -> Floats:
        """Viewport heights that the rows of the frame are for, (heights, widths)."""
        heights = self._viewports.heights
        return heights if self.W.shape[0] > 1 else heights[1:2]

    @property
    def W(self) -> Floats:
        """Frame widths in CSS px, (heights, widths)."""
        return self.frame.W

    @property
    def H(self) -> Floats:
        """Frame heights in CSS px, (heights, widths)."""
        return self.frame.H

    @property
    def typical(self) -> int:
        """The row of the typical viewport height."""
        rows: int = self.W.shape[0]
        return rows // 2

    @property
    def keeps(self) -> tuple[Area, ...]:
        """The keep areas that matter here, the most important first."""
        return ()


@dataclass(frozen=True, eq=False)
class ShownSpan(SpanPlan):
    """A span in which the part shows its picture.

    `crop` is what the treatment cuts before anything else (WHOLE without a crop), `picture` that
    crop as the aim sees it. `inside` is what shows in fractions of the crop, `shown` the same in
    fractions of the original, with the drawn sizes of the whole original.
    """

    original: Original
    crop: Rect
    picture: Picture
    inside: Windows
    shown: Windows

    @cached_property
    def keeps(self) -> tuple[Area, ...]:
        return keeps_of(self.original, self.effective.keeps)

    @cached_property
    def outline(self) -> Rect:
        """All that shows at some width, in fractions of the original."""
        return union(self.shown)

    @cached_property
    def safe(self) -> Rect | None:
        """What shows at every width, in fractions of the original; None if nothing does."""
        return safe_area(self.shown)

    @cached_property
    def cut(self) -> Rect:
        """What the files carry, a part of the crop, in fractions of the original."""
        e = self.effective
        if e.whole or e.fit == "contain":
            return self.crop
        found = self.outline
        # heights between those computed may move the window further where areas compete
        if self.W.shape[0] > 1:
            between = windows_between(self.picture, e.aim, self.turns)
            found = joined(found, union(outside(between, self.crop)))
        return found

    @cached_property
    def turns(self) -> Turns:
        """The visible shares at which a following position can bend."""
        return turns_of(self.picture, self.inside)

    @property
    def cut_inside(self) -> Rect:
        """The cut in fractions of the crop."""
        return inside(self.cut, self.crop)

    @cached_property
    def binding(self) -> dict[Literal["x", "y"], tuple[Interval, ...]]:
        """Per axis the keep areas whose projection binds somewhere in the span."""
        if not isinstance(self.effective.aim, Following):
            return {"x": (), "y": ()}
        s, p, turns = self.inside, self.picture, self.turns
        return {
            "x": binding(turns.x, float(s.drawn_w.max()), p.focal[0], p.keeps_x),
            "y": binding(turns.y, float(s.drawn_h.max()), p.focal[1], p.keeps_y),
        }

    @property
    def drawn_cut_width(self) -> Floats:
        """Drawn width of the cut in CSS px at every frame of the span."""
        return self.shown.drawn_w * self.cut.w


@dataclass(frozen=True, eq=False)
class PartPlan:
    """One part of a placement, computed in all spans from the narrowest. `origins` says, per letter
    and field, where a value comes from (see `Resolved`)."""

    index: int
    part: Part
    spans: tuple[SpanPlan, ...]
    origins: dict[str, dict[str, str]]

    @cached_property
    def shown(self) -> tuple[ShownSpan, ...]:
        """The spans in which it shows its picture."""
        return tuple(p for p in self.spans if isinstance(p, ShownSpan))

    @property
    def waiting(self) -> tuple[SpanPlan, ...]:
        """The spans that show a picture but have none yet."""
        return tuple(p for p in self.spans if p.effective.waits)

    def at(self, letter: str) -> SpanPlan | None:
        return next((p for p in self.spans if p.span.letter == letter), None)

    def of(self, letter: str) -> SpanPlan:
        """The same for a letter that is known to be there. Raises KeyError."""
        return {p.span.letter: p for p in self.spans}[letter]


@dataclass(frozen=True, eq=False)
class Setting:
    """A site, and a placement without its parts: all that a part of many depends on beside itself
    and its frames. Compared by identity: equal ones are one, for as long as they are asked for."""

    site: Site
    bare: Placement


@dataclass(frozen=True, eq=False)
class Plan:
    """A placement with all its parts computed in all spans. A part for which nothing has changed is
    that of the plan before, and `setting` is too: what is worked out of both once holds on."""

    site: Site
    placement: Placement
    layout: Layout
    parts: tuple[PartPlan, ...]
    said: Mapping[str, LayoutSaid]  # per letter the kind's own values
    spots: tuple[Spot, ...]  # every span as the layout sees it
    setting: Setting

    @property
    def spans(self) -> tuple[Span, ...]:
        return spans_of(self.site)

    @cached_property
    def in_portrait(self) -> PartPlan | None:
        """What shows in the place of the picture where the viewport is at least as high as it is
        wide, in the spans in which it shows at all."""
        return next((p for p in self.parts if p.part.role == "portrait"), None)

    @cached_property
    def written(self) -> tuple[PartPlan, ...]:
        """The parts that have an element of their own."""
        return tuple(p for p in self.parts if p is not self.in_portrait)

    def instead(self, part: PartPlan) -> PartPlan | None:
        """What shows in portrait in the place of this part."""
        return self.in_portrait if part.index == 0 else None


class NoSize(InvalidPlan):
    """A frame that has no width or no height at some viewport."""

    def __init__(self, sentence: str, part: int, side: str) -> None:
        super().__init__(sentence, field=side)
        self.part, self.side = part, side


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


def cell_of(
    e: Effective, original: Original | None, role: Role | None = None, item: Item | None = None
) -> Cell:
    """A part in one span as its layout sees it."""
    if original is None:
        w, h = UNKNOWN_RATIO
        return Cell(e, w / h, UNKNOWN_RATIO, role, item)
    crop = effective_crop(e.crop)
    px = crop_px(original, crop)
    return Cell(e, cropped_ratio(original, crop), (px.w, px.h), role, item)


def plan_part(
    layout: Layout, spot: Spot, index: int, original: Original | None, frame: Frame | None = None
) -> SpanPlan:
    """One part in one span. Raises NoSize where its frame has none."""
    e = spot.cells[index].effective
    frame = frame or layout.frame(spot, index)
    _has_size(spot, index, frame)
    if original is None or e.show != "picture":
        return SpanPlan(layout, spot, index, frame)
    crop = effective_crop(e.crop)
    picture = picture_of(original, e.aim, crop, keeps_of(original, e.keeps))
    windows_ = windows(picture, e.fit, e.aim, frame.W, frame.H)
    shown = outside(windows_, crop)
    return ShownSpan(layout, spot, index, frame, original, crop, picture, windows_, shown)


def replanned(p: SpanPlan, treatment: Treatment, original: Original) -> SpanPlan:
    """One part in one span with other values on top of what holds there, showing `original`. Raises
    NoSize."""
    # of many items the frames of all would have to be found for the one
    frame = p.frame if p.layout.has_items else None
    return replanned_at(p.layout, p.spot, p.index, treatment, original, frame)


def replanned_at(
    layout: Layout,
    spot: Spot,
    index: int,
    treatment: Treatment,
    original: Original,
    frame: Frame | None = None,
) -> SpanPlan:
    """The same by its place. `frame` is the one that it has, for as long as that stays."""
    cells = list(spot.cells)
    was = cells[index]
    now = cells[index] = cell_of(was.effective.with_own(treatment), original, was.role, was.item)
    follows = layout.keeps_ratios(spot) or isinstance(now.effective.height, NaturalHeight)
    stays = was.facts == now.facts if follows else was.said == now.said
    spot = spot._replace(cells=tuple(cells))
    return plan_part(layout, spot, index, original, frame if stays else None)


def _has_size(spot: Spot, index: int, frame: Frame) -> None:
    W, H = frame.W, frame.H
    if spot.cells[index].effective.show == "nothing" or (W.min() >= 1 and H.min() >= 1):
        return
    at = int(spot.viewports.widths[int(np.argmin(np.minimum(W, H).min(axis=0)))])
    side, why = "height", ""
    if W.min() < 1:
        side = "width"
        why = f": {width_sum(spot.cells[index].effective.width, spot.container, at)}"
    raise NoSize(
        f"The frame has no {side} at {at} px, span {spot.span.letter}{why}. Give it more room"
        " there.",
        index,
        side,
    )


def cropped_ratio(original: Original, crop: Rect) -> float:
    """Width over height of a part of an original."""
    return original.width_px * crop.w / (original.height_px * crop.h)


def crop_px(original: Original, cut: Rect) -> Crop:
    """The cut in whole image px, rounded to the nearest px; never empty, never beyond the
    picture."""

    def edges(first: float, last: float, length: int) -> tuple[int, int]:
        a = min(int(first * length + 0.5), length - 1)
        b = max(min(int(last * length + 0.5), length), a + 1)
        return a, b - a

    x, w = edges(cut.x, cut.x1, original.width_px)
    y, h = edges(cut.y, cut.y1, original.height_px)
    return Crop(x=x, y=y, w=w, h=h)
