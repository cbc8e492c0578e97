"""How a picture fares at a host that has a few views: with one file, one place in it and one frame
for each of them (rules §5, aim by percentages)."""

from __future__ import annotations

from typing import NamedTuple

from skypane.advice.percents import by_percents
from skypane.files.renditions import Files
from skypane.geometry import Crop, Rect
from skypane.markup.span_css import cut_of, span_css
from skypane.model import FixedAim, Host, Placement, Rendition, Site, Treatment, View
from skypane.shown.nouns import PartPlan, Plan, ShownSpan, SpanPlan
from skypane.shown.plan import plan


class InView(NamedTuple):
    """A picture in one view of a host: the span whose values are typed there, the `file` that is
    taken (None where none shows), the place in it that stays, in per cent, and the span as it then
    is."""

    view: View
    first: int
    last: int
    says: SpanPlan
    file: Rendition | None
    position: tuple[float, float] | None
    there: SpanPlan


def views_of(host: Host) -> tuple[View, ...]:
    """The views of a host, from the narrowest; one for all screens where it has one file."""
    return host.views if host.takes == "views" else (View(name="All screens"),)


def in_views(placed: Plan, part: PartPlan, files: Files, host: Host) -> tuple[InView, ...]:
    """A picture in each view of a host that some of the site's widths are in, from the narrowest.
    In a view that several spans share the one says what is typed that has most of its widths. Of a
    kind that lays its pictures out itself, which a host does in its own way, the places are not
    said, and `there` is the span as it stands."""
    site, views = placed.site, views_of(host)
    ranges = _ranges(site, views)
    if not placed.layout.decorates:
        # its frames there are the host's own
        return tuple(_typed_alone(part, files, *each) for each in ranges)
    says = [_most_of(part, first, last) for _, first, last in ranges]
    taken = [_file_of(files, part, p) for p in says]
    followed = _planned(
        placed, part, ranges, [_typed(p, f) for p, f in zip(says, taken, strict=True)]
    )
    positions = [
        _position(p, q) if f else None for p, q, f in zip(says, followed, taken, strict=True)
    ]
    typed = [_typed(p, f, at) for p, f, at in zip(says, taken, positions, strict=True)]
    there = _planned(placed, part, ranges, typed)
    return tuple(
        InView(view, first, last, p, f, at, q)
        for (view, first, last), p, f, at, q in zip(
            ranges, says, taken, positions, there, strict=True
        )
    )


def _typed_alone(part: PartPlan, files: Files, view: View, first: int, last: int) -> InView:
    """A picture of which nobody knows how it fares there."""
    p = _most_of(part, first, last)
    return InView(view, first, last, p, _file_of(files, part, p), None, p)


def _ranges(site: Site, views: tuple[View, ...]) -> list[tuple[View, int, int]]:
    out, first = [], site.narrowest
    for view in views:
        last = site.widest if view.to_px is None else min(view.to_px, site.widest)
        if last >= first:
            out.append((view, first, last))
            first = last + 1
    return out


def _most_of(part: PartPlan, first: int, last: int) -> SpanPlan:
    """The span that has most of these widths; of equals the widest."""

    def shared(p: SpanPlan) -> tuple[int, int]:
        return min(p.span.last, last) - max(p.span.first, first), p.span.last

    return max(part.spans, key=shared)


def _file_of(files: Files, part: PartPlan, p: SpanPlan) -> Rendition | None:
    """The largest file that a span takes, in the format that all hosts take."""
    mine = [
        r for g, made in files if g.part == part.index and p.span.letter in g.letters for r in made
    ]
    oldest = [r for r in mine if r.format == mine[-1].format]
    return max(oldest, key=lambda r: r.width_px, default=None)


def _typed(p: SpanPlan, file: Rendition | None, at: tuple[float, float] | None = None) -> Treatment:
    """A span's values with a file in the place of what it is cut from, and one place in it."""
    e = p.effective
    own = Treatment(width=e.width, height=e.height, stands=e.stands, background=e.background)
    if file is None or not isinstance(p, ShownSpan):
        show = "nothing" if e.show == "nothing" else "colour"
        return own.model_copy(update={"show": show})
    told = {
        "show": "picture",
        "original": e.original,
        "crop": share_of(file.crop, p.original.width_px, p.original.height_px),
        "keeps": e.keeps,
        "fit": e.fit,
        "aim": e.aim if at is None else FixedAim(x=at[0] / 100, y=at[1] / 100),
        "whole": True,
    }
    return own.model_copy(update={k: v for k, v in told.items() if v is not None})


def share_of(crop: Crop, width_px: int, height_px: int) -> Rect:
    """A crop in px as a share of the picture."""
    return Rect.between(
        crop.x / width_px, crop.x1 / width_px, crop.y / height_px, crop.y1 / height_px
    )


def _planned(
    placed: Plan,
    part: PartPlan,
    ranges: list[tuple[View, int, int]],
    treatments: list[Treatment],
) -> tuple[SpanPlan, ...]:
    posts = tuple(last for _, _, last in ranges[:-1])
    site = placed.site.model_copy(update={"breakpoints": posts, "titles": {}})
    letters = [chr(ord("A") + i) for i in range(len(ranges))]
    made = Placement(
        name=placed.placement.name,
        parts=(
            part.part.model_copy(
                update={
                    "role": None,
                    "key": None,
                    "treatments": dict(zip(letters, treatments, strict=True)),
                }
            ),
        ),
    )
    originals = {p.original.id: p.original for p in part.shown}
    return plan(site, made, originals).parts[0].spans


def _position(p: SpanPlan, there: SpanPlan) -> tuple[float, float] | None:
    """The place that keeps the areas whole at every width at which any place does; else the
    percentages nearest to the span's own aim."""
    if not isinstance(there, ShownSpan) or there.effective.fit == "contain":
        return (50.0, 50.0)
    found = by_percents(there)
    if found.x is not None and found.y is not None:
        return round(found.x * 100, 1), round(found.y * 100, 1)
    x, y = span_css(p, cut_of(p)).img["object-position"].split()
    return float(x.rstrip("%")), float(y.rstrip("%"))
