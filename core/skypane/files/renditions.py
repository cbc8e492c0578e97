"""The files that a placement needs (02-rules §3 and §4, *Cut*).

Needed image px = ceil(drawn width × density), the greatest over a span's widths and viewport
heights. The drawn width is that of the cut: (share of the picture's width that the cut keeps) × D.
The 2x width is 2·ceil(drawn width), the 1x file exactly half. A file is never larger than the crop
it comes from.
"""

from __future__ import annotations

import hashlib
import json
import math
from dataclasses import dataclass, replace

from skypane.files.names import EXTENSIONS, file_stem, part_name
from skypane.geometry import Crop
from skypane.identifiers import next_free
from skypane.model import Format, Original, Rendition, Site
from skypane.numerals import whole_px
from skypane.shown.plan import PartPlan, Plan, ShownSpan, crop_px

#: Raised whenever the pixel work changes, so that files made by older code are not taken for equal.
RECIPE = 1

#: A file that has this share of the px needed is not said to be soft: nobody sees half a per cent.
SHARP_ENOUGH = 0.995


@dataclass(frozen=True)
class Group:
    """Spans of a part that one set of files serves, from the narrowest; other spans may lie between
    them."""

    part: int
    spans: tuple[ShownSpan, ...]
    original: Original
    crop: Crop
    needed: int  # greatest drawn width in CSS px

    @property
    def letters(self) -> tuple[str, ...]:
        return tuple(p.span.letter for p in self.spans)


#: Every file of a placement, by group.
Files = tuple[tuple[Group, tuple[Rendition, ...]], ...]


def groups(part: PartPlan) -> tuple[Group, ...]:
    """Spans that need files, joined where their files would be equal or where both keep the whole
    picture."""
    out: list[Group] = []
    for p in part.shown:
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
            out.append(Group(part.index, (p,), p.original, crop, needed))
    return tuple(out)


def pixel_sizes(
    crop: Crop, needed: int, densities: tuple[float, ...]
) -> dict[float, tuple[int, int]]:
    """(width, height) in px per density. 2x is 2·needed, 1x exactly half; capped at the crop's own
    px, doubles left out."""
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


def rendition_key(
    sha256: str, crop: Crop, size: tuple[int, int], format_: Format, quality: int
) -> str:
    """Hash of all that makes a file; equal keys are equal files."""
    made_of = [RECIPE, sha256, crop.x, crop.y, crop.w, crop.h, *size, format_, quality]
    return hashlib.sha256(json.dumps(made_of).encode()).hexdigest()[:32]


def renditions(plan: Plan) -> Files:
    """Every file to export: by part, by group from the narrowest, within a group by density, then
    by the site's formats."""
    site, widest = plan.site, plan.spans[-1].letter
    sized = [
        (g, pixel_sizes(g.crop, g.needed, site.densities)) for p in plan.parts for g in groups(p)
    ]
    # files that would be equal at one density are one file with one name
    stems: dict[tuple[object, ...], str] = {}
    for g, sizes in reversed(sized):
        for density, size in sizes.items():
            word = None if widest in g.letters else span_word(site, g.letters[-1])
            same = _same_file(g, density, size)
            if same not in stems:
                called = part_name(plan.placement, g.part)
                stem = file_stem(called, word, density, site.naming)
                stems[same] = next_free(stem, stems.values())
    out = []
    for g, sizes in sized:
        files = []
        for density, size in sizes.items():
            stem = stems[_same_file(g, density, size)]
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
                        name=f"{stem}.{EXTENSIONS[f]}",
                        needed_px=math.ceil(g.needed * density),
                        key=rendition_key(g.original.sha256, g.crop, size, f, quality),
                    )
                )
        out.append((g, tuple(files)))
    return tuple(out)


def _same_file(group: Group, density: float, size: tuple[int, int]) -> tuple[object, ...]:
    return group.original.id, group.crop, density, size


def scaled(
    size: tuple[int, int], *, width: float | None = None, height: float | None = None
) -> tuple[int, int]:
    """A picture's px size after scaling to a width or a height, rounded to whole px."""
    w, h = size
    if width is not None:
        return round(width), round(width * h / w)
    height = h if height is None else height
    return round(height * w / h), round(height)


def sharp_up_to(width_px: int, density: float) -> int:
    """The widest full-width frame, in CSS px, that an original of this width fills sharply at a
    density (02-rules §3)."""
    return int(width_px / density)
