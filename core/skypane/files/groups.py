"""Which spans one set of files serves, and whether it is offered by width or by density.

Needed image px = ceil(drawn width × density), the greatest over a span's widths and viewport
heights (rules §3). The drawn width is that of the cut: (share of the picture's width that the
cut keeps) × D (§4).
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np

from skypane.files.ladder import Need
from skypane.geometry import Crop
from skypane.model import Lists, Original, Part, Placement, Site, Viewers
from skypane.numerals import whole_px
from skypane.shown.nouns import PartPlan, ShownSpan
from skypane.shown.parts import crop_px
from skypane.values import once
from skypane.widths.frames import Floats, Piece
from skypane.widths.lines import straight_lines

#: A frame whose drawn width changes by less than this over a span, in CSS px, does not change.
STEADY_PX = 1.0


@dataclass(frozen=True, eq=False)
class Group:
    """Spans of a part that one set of files serves, from the narrowest; other spans may lie between
    them. Compared by identity, as plans are. `by_width`: the files are offered by width, as a
    ladder, else by density."""

    part: int
    spans: tuple[ShownSpan, ...]
    original: Original
    crop: Crop
    needed: int  # greatest drawn width in CSS px
    by_width: bool = False

    @cached_property
    def letters(self) -> tuple[str, ...]:
        return tuple(p.span.letter for p in self.spans)


def lists_of(site: Site, placement: Placement, part: Part) -> Lists:
    """How a part's files are offered: as its placement says, else as its site does. What lies on a
    picture is small and comes at each density."""
    lies_on = part.role in ("mark", "inset")
    return "densities" if lies_on else placement.lists or site.lists


@once
def groups(part: PartPlan, lists: Lists) -> tuple[Group, ...]:
    """Spans that need files, joined where they can share them.

    Widths are shared between all spans of equal crop; densities only where the files would be
    equal, or where both keep the whole picture.
    """
    drawings = [p for p in part.shown if not p.original.has_px]
    pictures = [p for p in part.shown if p.original.has_px]
    out = [_drawn_at_any_size(part.index, spans) for spans in _of_equal_crop(drawings)]
    if lists == "densities":
        return _sorted((*out, *_by_density(part.index, pictures)))
    for spans in _of_equal_crop(pictures):
        if lists == "fitting" and all(map(is_steady, spans)):
            out += _by_density(part.index, spans)
        else:
            needed = max(whole_px(float(drawn_widths(p).max())) for p in spans)
            crop = crop_px(spans[0].original, spans[0].cut)
            out.append(Group(part.index, tuple(spans), spans[0].original, crop, needed, True))
    return _sorted(out)


def _sorted(found: Iterable[Group]) -> tuple[Group, ...]:
    return tuple(sorted(found, key=lambda g: g.spans[0].span.first))


def _drawn_at_any_size(part: int, spans: Sequence[ShownSpan]) -> Group:
    """One file serves all spans of equal crop, since it has no px of its own."""
    needed = max(whole_px(float(drawn_widths(p).max())) for p in spans)
    first = spans[0]
    crop = crop_px(first.original, first.cut)
    return Group(part, tuple(spans), first.original, crop, needed)


def _of_equal_crop(spans: Sequence[ShownSpan]) -> list[list[ShownSpan]]:
    found: dict[tuple[int, Crop], list[ShownSpan]] = {}
    for p in spans:
        found.setdefault((p.original.id, crop_px(p.original, p.cut)), []).append(p)
    return list(found.values())


def _by_density(part: int, spans: Sequence[ShownSpan]) -> tuple[Group, ...]:
    out: list[Group] = []
    for p in spans:
        crop = crop_px(p.original, p.cut)
        needed = whole_px(float(p.drawn_cut_width.max()))
        for i, group in enumerate(out):
            both_whole = p.effective.whole and group.spans[-1].effective.whole
            if (
                group.original.id == p.original.id
                and group.crop == crop
                and (both_whole or group.needed == needed)
            ):
                out[i] = replace(group, spans=(*group.spans, p), needed=max(needed, group.needed))
                break
        else:
            out.append(Group(part, (p,), p.original, crop, needed))
    return tuple(out)


@once
def drawn_widths(p: ShownSpan) -> Floats:
    """Drawn width of the cut in CSS px at every width of a span, at the viewport height that draws
    it widest: what `sizes` says, since it cannot ask for the height."""
    widest: Floats = p.drawn_cut_width.max(axis=0)
    return widest


@once
def drawn_lines(p: ShownSpan) -> tuple[Piece, ...]:
    """`drawn_widths` as straight lines over the widths of the span."""
    return tuple(straight_lines(p.viewport_w, drawn_widths(p)))


def is_steady(p: ShownSpan) -> bool:
    return bool(np.ptp(drawn_widths(p)) < STEADY_PX)


@once
def span_needs(p: ShownSpan, audience: tuple[Viewers, ...], is_last: bool) -> tuple[Need, ...]:
    """What the visitors need whose viewports lie in a span, not yet bound by the crop. Viewports
    beyond the site's widths count for the nearest span (`is_last`: for the widest)."""
    span, drawn = p.span, drawn_widths(p)
    is_first = p.viewport_w[0] == span.first and span.letter == "A"
    out = []
    for v in audience:
        inside = span.first <= v.width <= span.last
        beyond = (is_last and v.width > span.last) or (is_first and v.width < span.first)
        if v.weight and (inside or beyond):
            at = min(max(v.width, span.first), span.last) - span.first
            out.append(Need(whole_px(float(drawn[at]) * v.density), v.weight))
    return tuple(out)
