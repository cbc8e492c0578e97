"""Treatments handed down, frames computed over every width, and the renditions that follow (02-rules §3 and §4, *Cut*).

Needed image px = ceil(drawn width × density), the greatest over a span's widths and viewport heights. The drawn width is that of
the cut: (share of the picture's width that the cut keeps) × D. The 2x width is 2·ceil(drawn width), the 1x file exactly half.
A file is never larger than the crop it comes from.
"""

from __future__ import annotations

import hashlib
import json
import math
from collections.abc import Mapping
from dataclasses import dataclass, replace
from functools import cached_property
from typing import Literal

import numpy as np

from skypane.errors import InvalidPlan
from skypane.fit import (
    WHOLE,
    Interval,
    Picture,
    Region,
    Windows,
    binding,
    joined,
    outside,
    picture_of,
    union,
    windows,
    windows_between,
)
from skypane.frames import Floats, depends_on_viewport_height, frame_heights, frame_widths, viewport_heights
from skypane.model import (
    Aim,
    Area,
    Crop,
    Fit,
    Following,
    Format,
    FullWidth,
    HeightRule,
    NaturalHeight,
    Original,
    Placement,
    Rect,
    Rendition,
    Shows,
    Site,
    Stands,
    Treatment,
    WidthRule,
)
from skypane.names import EXTENSIONS, file_stem, next_free
from skypane.spans import Span, spans_of

#: Fields of a treatment in the order in which they are shown.
FIELDS = ("width", "height", "stands", "show", "original", "crop", "keeps", "fit", "aim", "whole", "background")

#: Fields that speak of one original and are not handed down past another one.
OF_ORIGINAL = ("crop", "keeps")

#: What a placement does when nobody has said anything yet.
DEFAULTS = Treatment(
    width=FullWidth(),
    height=NaturalHeight(),
    stands="centre",
    show="picture",
    fit="cover",
    aim=Following(),
    whole=False,
    background="#d5d9da",
)

#: The crop that is no crop.
UNCROPPED = Rect(x=0, y=0, w=1, h=1)

#: Raised whenever the pixel work changes, so that files made by older code are not taken for equal.
RECIPE = 1


@dataclass(frozen=True)
class Effective:
    """What holds in one span after handing down. `origin` says, per field, the letter it comes from ("" for a default)."""

    width: WidthRule
    height: HeightRule
    stands: Stands
    show: Shows
    original: int | None
    crop: Rect | None
    keeps: tuple[str, ...] | None
    fit: Fit
    aim: Aim
    whole: bool
    background: str
    origin: dict[str, str]

    def under(self, own: Treatment, letter: str) -> Effective:
        """What holds once a span's own values are laid on top."""
        values = {f: v for f in FIELDS if (v := getattr(own, f)) is not None}
        origin = {**self.origin, **dict.fromkeys(values, letter)}
        if values.get("original", self.original) != self.original:
            for field in OF_ORIGINAL:
                if field not in values:
                    values[field], origin[field] = None, ""
        return replace(self, **values, origin=origin)


def respan(before: Site, after: Site, placement: Placement, areas: Mapping[int, tuple[str, ...]] | None = None) -> Placement:
    """The placement after the site's breakpoints have changed: every width keeps what it did, as far as spans allow.

    A new span takes what held at its last width; what equals the next wider span is handed down rather than own. `areas` are the
    names of each original's keep areas: what a span says that shows all of them beside a wider one that names some.
    """
    if len(before.breakpoints) == len(after.breakpoints):
        return placement
    held, old = resolve(before, placement), spans_of(before)
    treatments: dict[str, Treatment] = {}
    wider: dict[str, object] = {}
    for span in reversed(spans_of(after)):
        e = held[next((s for s in old if s.last >= span.last), old[-1]).letter]
        values = {f: getattr(e, f) for f in FIELDS if e.origin[f]}
        if wider.get("original") == e.original:  # else crop and areas are not handed down to it
            if e.crop is None and wider.get("crop") is not None:
                values["crop"] = UNCROPPED
            if e.keeps is None and wider.get("keeps") is not None and e.original is not None:
                values["keeps"] = (areas or {}).get(e.original, ())
        else:
            for field in OF_ORIGINAL:
                wider.pop(field, None)
        own = {f: v for f, v in values.items() if v is not None and (f not in wider or wider[f] != v)}
        if own:
            treatments[span.letter] = Treatment.model_validate(own)
        wider.update(own)
    return placement.model_copy(update={"treatments": treatments})


@dataclass(frozen=True)
class Grid:
    """The viewports of a span: whole widths, and per width the least, typical and greatest height."""

    v: Floats
    heights: Floats  # (3, widths)


@dataclass(frozen=True, eq=False)
class SpanPlan:
    """One span, computed: frames and windows at all its widths (last axis) and viewport heights (first axis).

    What is asked for more than once in a reading is worked out on first use and kept.
    """

    span: Span
    effective: Effective
    original: Original | None
    picture: Picture | None  # the crop of the original, as the aim sees it
    grid: Grid
    viewport_h: Floats  # (heights, widths): one row where the frame does not depend on the viewport's height
    W: Floats  # (heights, widths)
    H: Floats
    inside: Windows | None  # what shows, in fractions of the crop
    shown: Windows | None  # the same in fractions of the original, drawn sizes those of the whole original
    crop: Region  # what the treatment cuts before anything else, in fractions of the original; WHOLE without a crop

    @property
    def viewport_w(self) -> Floats:
        """Viewport widths, (widths,)."""
        return self.grid.v

    @property
    def waits(self) -> bool:
        """Whether the span shows a picture but has none yet."""
        return self.original is None and self.effective.show == "picture"

    @cached_property
    def cut(self) -> Region:
        """What the files carry, a part of the crop, in fractions of the original."""
        e = self.effective
        if self.shown is None or self.inside is None or self.picture is None or e.whole or e.fit == "contain":
            return self.crop
        found = union(self.shown)
        if self.viewport_h.shape[0] > 1:  # heights between those computed may move the window further where areas compete
            found = joined(found, union(outside(windows_between(self.picture, e.aim, self.inside), self.crop)))
        return found

    @property
    def cut_inside(self) -> Region:
        """The cut in fractions of the crop."""
        c, k = self.cut, self.crop
        w, h = k.x1 - k.x0, k.y1 - k.y0
        return Region((c.x0 - k.x0) / w, (c.x1 - k.x0) / w, (c.y0 - k.y0) / h, (c.y1 - k.y0) / h)

    @cached_property
    def keeps(self) -> tuple[Area, ...]:
        """The keep areas that matter here, the most important first."""
        return keeps_of(self.original, self.effective.keeps) if self.original else ()

    @cached_property
    def held(self) -> dict[Literal["x", "y"], tuple[Interval, ...]]:
        """Per axis the keep areas whose projection binds somewhere in the span."""
        if self.picture is None or self.inside is None or not isinstance(self.effective.aim, Following):
            return {"x": (), "y": ()}
        s, p = self.inside, self.picture
        return {
            "x": binding(s.W / s.drawn_w, float(s.drawn_w.max()), p.focal[0], p.keeps_x),
            "y": binding(s.H / s.drawn_h, float(s.drawn_h.max()), p.focal[1], p.keeps_y),
        }


def resolve(site: Site, placement: Placement) -> dict[str, Effective]:
    """Per letter what holds there; wider spans hand down to narrower ones. Raises InvalidPlan for letters without a span."""
    spans = spans_of(site)
    unknown = set(placement.treatments) - {s.letter for s in spans}
    if unknown:
        raise InvalidPlan(f"There is no span {', '.join(sorted(unknown))} in this site.", field="treatments")
    current = Effective(**{f: getattr(DEFAULTS, f) for f in FIELDS}, origin=dict.fromkeys(FIELDS, ""))
    out: dict[str, Effective] = {}
    for span in reversed(spans):
        current = current.under(placement.treatments.get(span.letter, Treatment()), span.letter)
        out[span.letter] = current
    return out


def plan(site: Site, placement: Placement, originals: Mapping[int, Original]) -> tuple[SpanPlan, ...]:
    """All spans from the narrowest, computed. Raises InvalidPlan where a frame has no size or an original is missing."""
    effective = resolve(site, placement)
    out = []
    for span in spans_of(site):
        e = effective[span.letter]
        original = None
        if e.original is not None:
            original = originals.get(e.original)
            if original is None:
                raise InvalidPlan(
                    f"Span {span.letter} asks for an original that is not in this site. Choose another.",
                    field=f"treatments.{e.origin['original']}.original",
                )
        out.append(plan_span(site, span, e, original))
    return tuple(out)


def keeps_of(original: Original, names: tuple[str, ...] | None) -> tuple[Area, ...]:
    """The keep areas named, in that order; all in their own order where no names are given. Unknown names are passed over."""
    if names is None:
        return original.keeps
    by_name = {a.name: a for a in original.keeps}
    return tuple(by_name[n] for n in names if n in by_name)


def crop_region(crop: Rect | None) -> Region:
    """The crop by its edges; WHOLE itself where nothing is cut."""
    if crop is None or (crop.w > 1 - 1e-9 and crop.h > 1 - 1e-9):
        return WHOLE
    return Region(crop.x, min(1.0, crop.x + crop.w), crop.y, min(1.0, crop.y + crop.h))


def grid_of(site: Site, span: Span) -> Grid:
    v = np.arange(span.first, span.last + 1, dtype=np.float64)
    return Grid(v, np.stack(viewport_heights(site, v)))


def plan_span(site: Site, span: Span, e: Effective, original: Original | None, grid: Grid | None = None) -> SpanPlan:
    """One span, computed over its widths and, where its frame depends on them, viewport heights. `grid` saves making it again.

    Raises InvalidPlan where the frame has no size.
    """
    grid = grid or grid_of(site, span)
    v, vh = grid.v, grid.heights if depends_on_viewport_height(e.height) else grid.heights[1:2]
    crop = crop_region(e.crop) if original else WHOLE
    ratio = cropped_ratio(original, crop) if original else 16 / 9
    widths = frame_widths(e.width, v, site.container)
    W = np.broadcast_to(widths, vh.shape).copy()
    H = frame_heights(e.height, W, vh, ratio)
    if e.show != "nothing" and (W.min() < 1 or H.min() < 1):
        at = int(v[int(np.argmin(np.minimum(W, H).min(axis=0)))])
        side = "width" if W.min() < 1 else "height"
        raise InvalidPlan(
            f"The frame has no {side} at {at} px, span {span.letter}. Give it more room there.",
            field=f"treatments.{e.origin[side] or span.letter}.{side}",
        )
    if original is None or e.show != "picture":
        return SpanPlan(span, e, original, None, grid, vh, W, H, None, None, crop)
    picture = picture_of(original, e.aim, crop, keeps_of(original, e.keeps))
    inside = windows(picture, e.fit, e.aim, W, H)
    return SpanPlan(span, e, original, picture, grid, vh, W, H, inside, outside(inside, crop), crop)


def cropped_ratio(original: Original, crop: Region) -> float:
    return original.width_px * (crop.x1 - crop.x0) / (original.height_px * (crop.y1 - crop.y0))


def crop_of(original: Original, cut: Region) -> Crop:
    """The cut in whole image px, rounded to the nearest px; never empty, never beyond the picture."""

    def edges(first: float, last: float, length: int) -> tuple[int, int]:
        a = min(int(first * length + 0.5), length - 1)
        b = max(min(int(last * length + 0.5), length), a + 1)
        return a, b - a

    x, w = edges(cut.x0, cut.x1, original.width_px)
    y, h = edges(cut.y0, cut.y1, original.height_px)
    return Crop(x=x, y=y, w=w, h=h)


def drawn_cut_width(span_plan: SpanPlan) -> Floats:
    """Drawn width of the cut in CSS px at every frame of the span."""
    assert span_plan.shown is not None
    return span_plan.shown.drawn_w * (span_plan.cut.x1 - span_plan.cut.x0)


def whole_px(value: float) -> int:
    """ceil with room for rounding in floating point: 600.0000001 is 600."""
    return math.ceil(round(value, 4))


@dataclass(frozen=True)
class Group:
    """Spans that one set of files serves, from the narrowest; other spans may lie between them."""

    spans: tuple[SpanPlan, ...]
    original: Original
    crop: Crop
    needed: int  # greatest drawn width in CSS px

    @property
    def letters(self) -> tuple[str, ...]:
        return tuple(p.span.letter for p in self.spans)


def groups(plans: tuple[SpanPlan, ...]) -> tuple[Group, ...]:
    """Spans that need files, joined where their files would be equal or where both keep the whole picture."""
    out: list[Group] = []
    for p in plans:
        if p.original is None or p.shown is None:
            continue
        crop, needed = crop_of(p.original, p.cut), whole_px(float(drawn_cut_width(p).max()))
        for i, group in enumerate(out):
            both_whole = p.effective.whole and group.spans[-1].effective.whole
            if group.original.id == p.original.id and group.crop == crop and (both_whole or group.needed == needed):
                out[i] = Group((*group.spans, p), p.original, crop, max(needed, group.needed))
                break
        else:
            out.append(Group((p,), p.original, crop, needed))
    return tuple(out)


def pixel_sizes(crop: Crop, needed: int, densities: tuple[float, ...]) -> dict[float, tuple[int, int]]:
    """(width, height) in px per density. 2x is 2·needed, 1x exactly half; capped at the crop's own px, doubles left out."""
    out: dict[float, tuple[int, int]] = {}
    for density in densities:
        width = min(math.ceil(needed * density), crop.w)
        size = (width, max(1, scaled((crop.w, crop.h), width=width)[1]))
        if size not in out.values():
            out[density] = size
    if {1, 2} <= out.keys() and out[2][0] == 2 * out[1][0]:
        out[2] = (2 * out[1][0], min(2 * out[1][1], crop.h))
    return out


def span_word(site: Site, letter: str) -> str:
    return site.titles.get(letter) or letter.lower()


def formats_for(site: Site, original: Original) -> tuple[Format, ...]:
    """The site's formats; PNG takes the place of JPEG where there is transparency."""
    return tuple("png" if f == "jpeg" and original.alpha else f for f in site.formats)


def rendition_key(sha256: str, crop: Crop, size: tuple[int, int], format_: Format, quality: int) -> str:
    """Hash of all that makes a file; equal keys are equal files."""
    made_of = [RECIPE, sha256, crop.x, crop.y, crop.w, crop.h, *size, format_, quality]
    return hashlib.sha256(json.dumps(made_of).encode()).hexdigest()[:32]


def renditions(
    site: Site, placement: Placement, plans: tuple[SpanPlan, ...]
) -> tuple[tuple[Group, tuple[Rendition, ...]], ...]:
    """Every file to export, by group from the narrowest; within a group by density, then the site's formats."""
    widest = plans[-1].span.letter
    found = groups(plans)
    sized = [(g, pixel_sizes(g.crop, g.needed, site.densities)) for g in found]
    stems: dict[tuple[object, ...], str] = {}  # files that would be equal at one density are one file with one name
    for g, sizes in reversed(sized):
        for density, size in sizes.items():
            word = None if widest in g.letters else span_word(site, g.letters[-1])
            same = _same_file(g, density, size)
            if same not in stems:
                stems[same] = next_free(file_stem(placement.called, word, density, site.naming), stems.values())
    out = []
    for g, sizes in sized:
        files = []
        for density, size in sizes.items():
            for f in formats_for(site, g.original):
                quality = 100 if f == "png" else int(getattr(site.quality, f))
                files.append(
                    Rendition(
                        original=g.original.id,
                        crop=g.crop,
                        width_px=size[0],
                        height_px=size[1],
                        format=f,
                        density=density,
                        quality=quality,
                        spans=g.letters,
                        name=f"{stems[_same_file(g, density, size)]}.{EXTENSIONS[f]}",
                        needed_px=math.ceil(g.needed * density),
                        key=rendition_key(g.original.sha256, g.crop, size, f, quality),
                    )
                )
        out.append((g, tuple(files)))
    return tuple(out)


def _same_file(group: Group, density: float, size: tuple[int, int]) -> tuple[object, ...]:
    return group.original.id, group.crop, density, size


def scaled(size: tuple[int, int], *, width: float | None = None, height: float | None = None) -> tuple[int, int]:
    """A picture's px size after scaling to a width or a height, rounded to whole px."""
    w, h = size
    if width is not None:
        return round(width), round(width * h / w)
    height = h if height is None else height
    return round(height * w / h), round(height)


def sharp_up_to(width_px: int, density: float) -> int:
    """The widest full-width frame, in CSS px, that an original of this width fills sharply at a density (02-rules §3)."""
    return int(width_px / density)
