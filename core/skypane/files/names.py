"""Names of exported files: name, span, density or width, extension (02-rules §13).

Lower-case ASCII, safe on every file system; the widest span and 1x say nothing. No two renditions
share a name.
"""

from __future__ import annotations

from collections.abc import Iterable

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
    role where it has one, else with its number."""
    role = placement.parts[part].role
    if role is not None:
        return f"{placement.called}-{role}"
    pictures = (p for p in placement.parts if p.role is None)
    next(pictures)
    is_alone = next(pictures, None) is None
    return placement.called if is_alone else f"{placement.called}-{part + 1}"


def part_class(placement: Placement, part: int, in_a_box: bool) -> str:
    """The class of one part: as its files, but never that of the box around all parts. What shows
    in the place of the picture has the class of that."""
    name = part_name(placement, 0 if placement.parts[part].role == "portrait" else part)
    return f"{name}-picture" if in_a_box and name == placement.called else name


def density_text(density: float) -> str:
    return f"{density:g}x"


def file_stem(
    called: str, span: str | None, size: float | int, naming: Naming, page: str = ""
) -> str:
    """A file name without its extension, its folder before it. `called` is the placement's
    identifier, `span` is None for the widest span; `size` a density as float, or a width in px as
    int. Each part has its lead, which the first part that is said goes without."""
    said = {"name": ("-", called), "span": ("", ""), "size": ("", "")}
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


def examples(naming: Naming, titles: Iterable[str]) -> tuple[str, ...]:
    """What files of a made-up placement would be called: of the widest span and of the one with the
    first title, at 1x, at 2x and at a width."""
    word = next((t for t in titles if t), "narrow")
    return tuple(
        f"{file_stem('lighthouse', span, size, naming, 'Home')}.avif"
        for span in (None, word)
        for size in (1.0, 2.0, 800)
    )
