"""A placement at one viewport: its span as the layout sees it there and nowhere else."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

from skypane.errors import InvalidPlan
from skypane.handing_down import Handed
from skypane.layouts import Handle, Layout, Sets, Spot, layout_of, with_sets
from skypane.model import HeightRange, Original, Part, Placement, Site
from skypane.pulls.nouns import Held
from skypane.shown.nouns import SpanPlan
from skypane.shown.parts import plan_part
from skypane.shown.plan import spot_of
from skypane.treatments import Resolved
from skypane.values import GREATEST_VIEWPORT
from skypane.widths.spans import Span, spans_of


@dataclass(frozen=True)
class Here:
    """`spot` is that of one viewport; `shown` the original of each part. `resolved` and `of_kind`
    say what is set in the spans, and by whom. Of many items only the first ones are here, and the
    one that is worked on."""

    site: Site
    placement: Placement
    layout: Layout
    held: Held
    span: Span
    spot: Spot
    shown: tuple[Original | None, ...]
    resolved: tuple[Mapping[str, Resolved], ...]
    of_kind: Mapping[str, Handed]

    def handles(self) -> list[Handle]:
        return list(self.layout.handles(self.spot)) if self.spot.shown else []

    def handle(self, id_: str) -> Handle:
        """Raises InvalidPlan where there is none of that name."""
        found = next((h for h in self.handles() if h.id == id_), None)
        if found is None:
            raise InvalidPlan(
                "There is no such edge to be pulled here any more. Look at the stage again.",
                field="handle",
            )
        return found

    def with_sets(self, sets: Sets, part: int | None) -> Spot:
        return with_sets(self.spot, sets, part)

    def part_in(self, spot: Spot, part: int) -> SpanPlan:
        """One part as it is in a spot of this viewport."""
        return plan_part(self.layout, spot, part, self.shown[part])

    def alone(self, index: int, sets: Sets, part: int | None) -> SpanPlan:
        """One part with other values; of many items as if there were no other, since the frames of
        all that are told their height are alike. Raises InvalidPlan where it has no frame."""
        if not self.layout.is_large:
            return self.part_in(self.with_sets(sets, part), index)
        only = replace(self.spot, cells=(self.spot.cells[index],))
        return plan_part(self.layout, with_sets(only, sets, None), 0, self.shown[index])

    def check(self, spot: Spot) -> None:
        """Raises InvalidPlan where the part that is worked on, of many the first of all, has no
        frame in a spot of this viewport."""
        if self.layout.is_large:
            plan_part(self.layout, replace(spot, cells=spot.cells[:2]), 0, self.shown[0])
        else:
            self.part_in(spot, self.part)

    @property
    def part(self) -> int:
        """The part that is worked on, as far as it is there."""
        return min(self.held.part, len(self.spot.cells) - 1)

    def wider(self) -> Span | None:
        """The next wider span."""
        all_ = spans_of(self.site)
        at = all_.index(self.span) + 1
        return all_[at] if at < len(all_) else None


def here(site: Site, placement: Placement, originals: Mapping[int, Original], held: Held) -> Here:
    """Raises InvalidPlan where the placement cannot be computed, or has no such span; a width that
    is not in it is brought to its nearest."""
    layout = layout_of(placement)
    parts, part = _few(placement, held.part, many=layout.is_large)
    held = held.model_copy(update={"part": part})
    usual = placement.model_copy(update={"parts": parts})
    span = next((s for s in spans_of(site) if s.letter == held.letter), None)
    if span is None:
        raise InvalidPlan(f"There is no span {held.letter} in this site.", field="letter")
    width = min(max(held.width, span.first), span.last)
    high = min(max(held.height, 200), 6000)
    only = HeightRange(to_px=GREATEST_VIEWPORT, least_px=high, typical_px=high, greatest_px=high)
    at = site.model_copy(update={"heights": (only,)})
    one = span._replace(first=width, last=width)
    found = spot_of(layout, at, usual, originals, span, held.scrollbar_px, seen=one)
    return Here(
        site=site,
        placement=usual,
        layout=layout,
        held=held,
        span=span,
        spot=found.spot,
        shown=found.shown,
        resolved=found.resolved,
        of_kind=found.of_kind,
    )


#: Of many items so many are laid out: more than the rows that can be taken hold of have.
FEW = 40


def _few(placement: Placement, part: int, *, many: bool) -> tuple[tuple[Part, ...], int]:
    """The parts that are laid out, and where among them the one is that is worked on."""
    usual = placement.usual
    part = min(part, len(usual) - 1)
    if not many or len(usual) <= FEW:
        return usual, part
    if part < FEW:
        return usual[:FEW], part
    return (*usual[: FEW - 1], usual[part]), FEW - 1


def again(of: Here, placement: Placement, originals: Mapping[int, Original]) -> Here:
    """Another placement at the same viewport."""
    return here(of.site, placement, originals, of.held)
