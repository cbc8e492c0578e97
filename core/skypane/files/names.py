"""Names of exported files: name, span, density or width, extension (rules §13).

Lower-case ASCII, safe on every file system; the widest span and 1x say nothing. No two renditions
share a name, and no cut has the name of another one that was handed over.
"""

from __future__ import annotations

import hashlib
import json
import re
from collections.abc import Iterable, Sequence

from skypane.geometry import Crop
from skypane.identifiers import identifier, plain, unique
from skypane.model import Format, Naming, Placement

EXTENSIONS: dict[Format, str] = {
    "avif": "avif",
    "webp": "webp",
    "jpeg": "jpg",
    "png": "png",
    "svg": "svg",
}


def stems(names: Iterable[str]) -> list[str]:
    """What the placements of a site are called in code and files, the eldest first: of two that
    would be called alike the elder keeps the plain identifier and the younger gets a number."""
    return unique(identifier(name) for name in names)


def part_name(placement: Placement, part: int) -> str:
    """What the files of one part are called: as the placement where it is its only picture, by its
    role where it has one, else with its number; of a variant the conditions after that."""
    mine = placement.parts[part]
    if mine.of is not None:
        return "-".join((part_name(placement, usual_of(placement, part)), *mine.when))
    if mine.role is not None:
        return f"{placement.called}-{mine.role}"
    # not `usual`: asked for every part of many, it need not look at all of them
    pictures = (p for p in placement.parts if p.of is None and p.role is None)
    next(pictures)
    is_alone = next(pictures, None) is None
    return placement.called if is_alone else f"{placement.called}-{part + 1}"


def usual_of(placement: Placement, part: int) -> int:
    """The place of the part that a variant stands in for."""
    of = placement.parts[part].of
    return next(i for i, p in enumerate(placement.parts) if p.key == of)


def part_class(placement: Placement, part: int, in_a_box: bool) -> str:
    """The class of one part: as its files, but never that of the box around all parts."""
    name = part_name(placement, part)
    return f"{name}-picture" if in_a_box and name == placement.called else name


def density_text(density: float) -> str:
    return f"{density:g}x"


#: What the number of a later cut is told apart by: no identifier has an underline.
VERSION_LEAD = "_v"


def cut_id(original_sha256: str, crop: Crop) -> str:
    """What a file shows, whatever its size and format: short, and alike only for the same px of the
    same file."""
    of = [original_sha256, crop.x, crop.y, crop.w, crop.h]
    return hashlib.sha256(json.dumps(of).encode()).hexdigest()[:12]


def slot_of(called: str, span: str | None) -> str:
    """What files of one part and span are called beside their size: where cuts follow each
    other."""
    return called if span is None else f"{called} {plain(span)}"


def version_of(cut: str, handed: Sequence[str]) -> str:
    """What tells a cut apart from those that were handed over before under the same name, so that
    no cache shows the old one for it: nothing for the first, then _v2, _v3 …; an earlier cut has
    its name again."""
    found = handed.index(cut) if cut in handed else len(handed)
    return f"{VERSION_LEAD}{found + 1}" if found else ""


def hash_mark(key: str) -> str:
    """What stands before the extension of a name that tells content apart by itself, of a file's
    key: a dot and eight digits of it (common practice)."""
    return f".{key[:8]}"


def first_name(name: str) -> str:
    """The name of a file as its first cut has it, whatever its content."""
    plain_ = re.sub(r"\.[0-9a-f]{8}(?=\.[a-z]+$)", "", name)
    return re.sub(rf"{VERSION_LEAD}\d+(?=[^a-z0-9])", "", plain_)


def file_stem(
    called: str,
    span: str | None,
    size: float | int,
    naming: Naming,
    page: str = "",
    version: str = "",
) -> str:
    """A file name without its extension, its folder before it. `called` is the placement's
    identifier, `span` is None for the widest span; `size` a density as float, or a width in px as
    int; `version` tells cuts apart (see `version_of`). Each part has its lead, which the first part
    that is said goes without."""
    said = {"name": ("-", called + version), "span": ("", ""), "size": ("", "")}
    if span is not None:
        said["span"] = (naming.span_lead, plain(span) or "span")
    if isinstance(size, int):
        said["size"] = (naming.width_lead, f"{size}w")
    elif size != 1:
        said["size"] = (naming.density_lead, density_text(size).replace(".", "-"))
    stem = ""
    for part in naming.parts:
        lead, text = said[part]
        stem += (lead if stem else "") + text
    folder = {"none": "", "page": plain(page), "placement": called}[naming.folder]
    return f"{folder}/{stem}" if folder else stem


def examples(naming: Naming, titles: Iterable[str], hashed: bool = False) -> tuple[str, ...]:
    """What files of a made-up placement would be called: of the widest span and of the one with the
    first title, at 1x, at 2x and at a width."""
    word, mark = next((t for t in titles if t), "narrow"), hash_mark("3f9a2c1d") if hashed else ""
    return tuple(
        f"{file_stem('lighthouse', span, size, naming, 'Home')}{mark}.avif"
        for span in (None, word)
        for size in (1.0, 2.0, 800)
    )
