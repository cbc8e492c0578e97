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
    """What the class and the files of one part are called: as the placement where it has no other,
    else with its number."""
    return placement.called if len(placement.parts) == 1 else f"{placement.called}-{part + 1}"


def density_text(density: float) -> str:
    return f"{density:g}x"


def file_stem(called: str, span: str | None, size: float | int, naming: Naming) -> str:
    """A file name without its extension. `called` is the placement's identifier, `span` is None for
    the widest span; `size` a density as float, or a width in px as int."""
    stem = called
    if span is not None:
        stem += naming.span_lead + (plain(span) or "span")
    if isinstance(size, int):
        stem += f"{naming.width_lead}{size}w"
    elif size != 1:
        stem += naming.density_lead + density_text(size).replace(".", "-")
    return stem
