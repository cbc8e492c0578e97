"""What a placement is once it is computed: every part in every span.

The cut is what the files carry: all that shows at some width or viewport height of the span.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cached_property
from typing import Literal, cast

from skypane.geometry import Rect, inside, joined
from skypane.handing_down import Handed
from skypane.layouts import Frame, Laid, Layout, Spot
from skypane.model import (
    NO_BACKGROUND,
    Area,
    Feature,
    Following,
    OnPicture,
    Original,
    Part,
    Placement,
    Site,
)
from skypane.shown.fit import (
    Interval,
    Picture,
    Turns,
    Windows,
    binding,
    outside,
    safe_area,
    turns_of,
    union,
    windows_between,
)
from skypane.treatments import (
    Effective,
    keeps_of,
)
from skypane.widths.frames import Floats, Viewports
from skypane.widths.spans import Span


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
    def ground(self) -> str:
        """The colour that lies behind the picture: where it keeps none the page's."""
        own = self.effective.background
        return self.spot.page_ground if own == NO_BACKGROUND else own

    @cached_property
    def laid(self) -> Laid:
        """Where words and picture are, of a kind that has words."""
        return self.layout.laid(self.spot)

    @property
    def on_picture(self) -> OnPicture:
        """What holds for its words, of a kind that has words."""
        return cast(OnPicture, self.spot.values)

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
    """One part of a placement, computed in all spans from the narrowest. `handed` says, per letter,
    what has been set of its treatment and by whom. `usual` are the letters of the spans in
    which a variant lets the part show that it stands in for; it shows nothing there itself."""

    index: int
    part: Part
    spans: tuple[SpanPlan, ...]
    handed: Mapping[str, Handed]
    usual: frozenset[str] = frozenset()

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
        """The part in the span of a letter. Raises KeyError where there is no such span."""
        return {p.span.letter: p for p in self.spans}[letter]


@dataclass(frozen=True, eq=False)
class Setting:
    """A site, a placement without its parts, the room that a scrollbar takes, and the conditions
    that hold: all that a part of many depends on beside itself and its frames. Compared by
    identity: equal ones are one, for as long as they are asked for."""

    site: Site
    bare: Placement
    scrollbar_px: float = 0
    when: tuple[Feature, ...] = ()


@dataclass(frozen=True, eq=False)
class Plan:
    """A placement with all its parts computed in all spans. A part for which nothing has changed is
    that of the plan before, and `setting` is too: what is worked out of both once holds on."""

    site: Site
    placement: Placement
    layout: Layout
    parts: tuple[PartPlan, ...]
    handed_of_kind: Mapping[str, Handed]  # per letter
    spots: tuple[Spot, ...]  # every span as the layout sees it
    setting: Setting
    # as it is while conditions hold under which something is otherwise, fewest first: its parts
    # are then those that show in the place of the usual ones
    under: Mapping[tuple[Feature, ...], Plan] = field(default_factory=dict)
    # the original that shows in place of one whose file does not come
    substitute: Original | None = None

    @property
    def spans(self) -> tuple[Span, ...]:
        return tuple(s.span for s in self.spots)

    @cached_property
    def written(self) -> tuple[PartPlan, ...]:
        """The parts that have an element of their own: those that stand in for no other one."""
        return tuple(p for p in self.parts if p.part.of is None)

    @property
    def originals(self) -> dict[int, Original]:
        """The originals that some span shows, by id."""
        return {p.original.id: p.original for part in self.parts for p in part.shown}

    @cached_property
    def _variants(self) -> dict[str, list[int]]:
        return self.placement.variants()

    def alternatives(self, part: PartPlan) -> tuple[PartPlan, ...]:
        """What shows in the place of a part under conditions, in the order in which those are
        tested."""
        return tuple(self.parts[i] for i in self._variants.get(part.part.key or "", ()))

    def usual_of(self, part: PartPlan) -> PartPlan:
        """The part that a variant stands in for; of any other one itself."""
        of = part.part.of
        return part if of is None else next(p for p in self.written if p.part.key == of)

    def place_of(self, part: PartPlan) -> int:
        """Which of the elements shows a part."""
        return self.usual_of(part).index
