"""The files that a placement needs (rules §3, §4 *Cut*, and §7).

By density: the 2x width is 2·ceil(drawn width), the 1x file exactly half. By width: the rungs of a
ladder. A file is never larger than the crop it comes from.
"""

from __future__ import annotations

import hashlib
import json
import math
from typing import NamedTuple

from skypane.files.groups import Group, groups, lists_of, span_needs
from skypane.files.inline import inline_of
from skypane.files.ladder import USUAL_GROWTH, Bytes, Ladder, Need, cost, enough, merged_needs
from skypane.files.ladder import usual as usual_ladders
from skypane.files.names import (
    EXTENSIONS,
    cut_id,
    file_stem,
    hash_mark,
    part_name,
    slot_of,
    version_of,
)
from skypane.geometry import Crop
from skypane.identifiers import next_free
from skypane.model import MOST_RUNGS, Effort, Format, Original, Rendition, Rungs, Site
from skypane.model.medium import MEDIA
from skypane.shown.nouns import Plan, Setting
from skypane.values import once

#: Raised whenever the pixel work changes, so that files made by older code are not taken for equal.
RECIPE = 3

#: A file that has this share of the px needed is not said to be soft: nobody sees half a per cent.
SHARP_ENOUGH = 0.995


class Size(NamedTuple):
    """One px size of a group. `density` is None where it is offered by its width."""

    width: int
    height: int
    density: float | None
    needed: int


#: Every file of a placement, by group.
Files = tuple[tuple[Group, tuple[Rendition, ...]], ...]


def by_part(files: Files) -> dict[int, Files]:
    """The files of each part that has any, by its place."""
    of: dict[int, list[tuple[Group, tuple[Rendition, ...]]]] = {}
    for group, made in files:
        of.setdefault(group.part, []).append((group, made))
    return {part: tuple(mine) for part, mine in of.items()}


def by_letter(files: Files) -> dict[str, tuple[Rendition, ...]]:
    """Files by the letters of the spans that take them."""
    return {p.span.letter: made for g, made in files for p in g.spans}


# -- sizes ----------------------------------------------------------------------------------


class Climbed(NamedTuple):
    """The ladder of a group: what its visitors need, the best ladders of 1, 2 … widths, and the one
    that is taken, which may be the designer's own."""

    needs: tuple[Need, ...]
    top: int
    best: tuple[Ladder, ...]
    taken: Ladder
    is_own: bool


def climbed(group: Group, plan: Plan) -> Climbed:
    """The ladder of a group that is offered by width. It follows from the plan alone, whatever has
    been made already, so that the same plan always asks for the same files."""
    return _climbed(group, plan.setting, _widest(plan), _own_rungs(plan, group))


def _widest(plan: Plan) -> str:
    """The letter of the widest span."""
    return plan.spots[-1].span.letter


def _own_rungs(plan: Plan, group: Group) -> Rungs | None:
    return plan.parts[group.part].part.ladders.get(group.letters[-1])


@once
def _climbed(group: Group, setting: Setting, last: str, own: Rungs | None) -> Climbed:
    # not of the part itself: what is kept of a group must not hold on to what holds the group
    site, placement = setting.site, setting.bare
    top = min(math.ceil(group.needed * site.densities[-1]), group.crop.w)
    asked = [
        need for p in group.spans for need in span_needs(p, site.audience, p.span.letter == last)
    ]
    needs = merged_needs(asked, top)
    ladders = usual_ladders(needs, MOST_RUNGS)
    if own is not None:
        rungs = {*(r for r in own if r < top), top}
        taken = cost(sorted(rungs), needs, Bytes({"any": USUAL_GROWTH}, {"any": 1}))
    elif placement.n_files is not None:
        taken = ladders[min(placement.n_files, len(ladders)) - 1]
    else:
        taken = enough(ladders[: site.most_files], site.waste_percent / 100)
    return Climbed(needs, top, ladders, taken, own is not None)


def sizes_of(plan: Plan, group: Group) -> tuple[Size, ...]:
    """The px sizes of a group, ascending."""
    return _sizes_of(group, plan.setting, _widest(plan), _own_rungs(plan, group))


@once
def _sizes_of(group: Group, setting: Setting, last: str, own: Rungs | None) -> tuple[Size, ...]:
    crop = group.crop
    if not group.original.has_px:
        height = max(1, scaled((crop.w, crop.h), width=group.needed)[1])
        return (Size(group.needed, height, 1.0, group.needed),)
    if not group.by_width:
        return tuple(
            Size(*size, float(density), math.ceil(group.needed * density))
            for density, size in pixel_sizes(crop, group.needed, setting.site.densities).items()
        )
    top = math.ceil(group.needed * setting.site.densities[-1])
    ladder = _climbed(group, setting, last, own)
    return tuple(
        Size(
            width,
            max(1, scaled((crop.w, crop.h), width=width)[1]),
            None,
            top if width == ladder.top else width,
        )
        for width in ladder.taken.widths
    )


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
    density (rules §3)."""
    return int(width_px / density)


# -- files ----------------------------------------------------------------------------------


def span_word(site: Site, letter: str) -> str:
    return site.titles.get(letter) or letter.lower()


#: The longest side that a format has, in px: 14 bits in WebP (RFC 6386, §9.1), as much in AVIF as
#: libvips writes.
LONGEST: dict[Format, int] = {"webp": 16383, "avif": 16384}


def formats_for(plan: Plan, original: Original) -> tuple[Format, ...]:
    """The formats of the placement, else of its site, as its medium has them."""
    asked = plan.placement.formats or plan.site.formats
    lossless = original.alpha or original.flat
    return MEDIA[original.medium].formats(asked, lossless, original.frames > 1)


def rendition_key(
    sha256: str,
    crop: Crop,
    size: tuple[int, int],
    format_: Format,
    likeness: float,
    effort: Effort = "thorough",
    *,
    animated: bool = False,
) -> str:
    """Hash of all that makes a file; equal keys are equal files. What loses nothing does not ask
    for a likeness."""
    target = None if format_ in ("png", "svg") else likeness
    made_of = [RECIPE, sha256, crop.x, crop.y, crop.w, crop.h, *size, format_, target, effort]
    made_of += ["animated"] if animated else []
    return hashlib.sha256(json.dumps(made_of).encode()).hexdigest()[:32]


def quick_key(r: Rendition, sha256: str) -> str:
    """The key of the same file made quickly, to look at."""
    size = r.width_px, r.height_px
    return rendition_key(sha256, r.crop, size, r.format, r.likeness, "quick", animated=r.animated)


def groups_of(plan: Plan) -> tuple[Group, ...]:
    """The groups of all parts that have files, each part's from the narrowest."""
    return tuple(
        g
        for part in plan.parts
        if inline_of(plan, part) is None
        for g in groups(part, lists_of(plan.site, plan.placement, part.part))
    )


def renditions(plan: Plan, effort: Effort = "thorough") -> Files:
    """Every file to export: by part, by group from the narrowest, within a group by size, then by
    the site's formats. `effort` quick: for looking, not for handing over."""
    sized = [(g, sizes_of(plan, g)) for g in groups_of(plan)]
    stems = _stems(plan, sized)
    return tuple(
        (
            g,
            _files_of(
                g,
                sizes,
                tuple(stems[same] for same in _same_files(g, sizes)),
                formats_for(plan, g.original),
                plan.site.likeness,
                effort,
                plan.site.hand_over.hashed,
            ),
        )
        for g, sizes in sized
    )


@once
def _files_of(
    g: Group,
    sizes: tuple[Size, ...],
    stems: tuple[str, ...],
    formats: tuple[Format, ...],
    likeness: float,
    effort: Effort,
    hashed: bool,
) -> tuple[Rendition, ...]:
    files = []
    for size, stem in zip(sizes, stems, strict=True):
        px = (size.width, size.height)
        for f in formats:
            if max(px) > LONGEST.get(f, max(px)):
                continue
            moves = f == "webp" and g.original.frames > 1
            sha256 = g.original.sha256
            made_of = (sha256, g.crop, px, f, likeness)
            # whichever of the two is looked at, it has the name of what is handed over
            mark = hash_mark(rendition_key(*made_of, animated=moves)) if hashed else ""
            files.append(
                Rendition(
                    original=g.original.id,
                    crop=g.crop,
                    width_px=size.width,
                    height_px=size.height,
                    format=f,
                    density=size.density,
                    likeness=likeness,
                    effort=effort,
                    spans=g.letters,
                    name=f"{stem}{mark}.{EXTENSIONS[f]}",
                    needed_px=size.needed,
                    animated=moves,
                    key=rendition_key(*made_of, effort, animated=moves),
                )
            )
    return tuple(files)


_Same = tuple[object, ...]


def _stems(plan: Plan, sized: list[tuple[Group, tuple[Size, ...]]]) -> dict[_Same, str]:
    """What each px size is called. Files that would be equal at one density, or one width, are one
    file with one name; what would be called alike gets a number."""
    stems: dict[_Same, str] = {}
    taken: set[str] = set()
    # of equal files the first part names them, and of its spans the widest
    widest_first = list(reversed(sized))
    for g, sizes in sorted(widest_first, key=lambda of: of[0].part):
        called = part_name(plan.placement, g.part)
        slot, cut = cut_of(plan, g)
        handed = plan.placement.handed.get(slot, ())
        version = "" if plan.site.hand_over.hashed else version_of(cut, handed)
        own = _own_stems(g, plan.setting, _widest(plan), called, version, sizes)
        for same, stem in zip(_same_files(g, sizes), own, strict=True):
            if same not in stems:
                stems[same] = next_free(stem, taken)
                taken.add(stems[same])
    return stems


@once
def _own_stems(
    g: Group,
    setting: Setting,
    widest: str,
    called: str,
    version: str,
    sizes: tuple[Size, ...],
) -> tuple[str, ...]:
    """What the sizes of a group would be called if it were alone."""
    site, page = setting.site, setting.bare.page
    word = _word(site, g, widest)
    return tuple(
        file_stem(called, word, s.density or s.width, site.naming, page, version) for s in sizes
    )


def _word(site: Site, g: Group, widest: str) -> str | None:
    return None if widest in g.letters else span_word(site, g.letters[-1])


def cut_of(plan: Plan, g: Group) -> tuple[str, str]:
    """Under which name a group's files are told apart by their cut, and which cut it is."""
    slot = slot_of(part_name(plan.placement, g.part), _word(plan.site, g, _widest(plan)))
    return slot, cut_id(g.original.sha256, g.crop)


@once
def _same_files(group: Group, sizes: tuple[Size, ...]) -> tuple[_Same, ...]:
    c = group.crop
    of = (group.original.id, c.x, c.y, c.w, c.h)
    return tuple((*of, s.density, s.width, s.height) for s in sizes)
