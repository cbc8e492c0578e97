"""Names of exported files: name, span, density, extension (02-rules §13).

Lower-case ASCII, safe on every file system; the widest span and 1x say nothing. No two renditions share a name.
"""

from __future__ import annotations

import re
import unicodedata

from skypane.model import Format, Naming

EXTENSIONS: dict[Format, str] = {"avif": "avif", "webp": "webp", "jpeg": "jpg", "png": "png"}
_RESERVED = {"con", "prn", "aux", "nul", *(f"{d}{i}" for d in ("com", "lpt") for i in range(1, 10))}


def slug(text: str, fallback: str = "picture") -> str:
    """Lower-case ASCII letters, digits and single hyphens, at most 60 characters, never a device name of an old system."""
    plain = unicodedata.normalize("NFKD", text.casefold()).encode("ascii", "ignore").decode()
    plain = re.sub(r"[^a-z0-9]+", "-", plain).strip("-")[:60].strip("-")
    if not plain or plain in _RESERVED:
        return fallback if not plain else f"{plain}-{fallback}"
    return plain


def density_text(density: float) -> str:
    return f"{density:g}x"


def file_stem(name: str, span: str | None, density: float, naming: Naming) -> str:
    """A file name without its extension. `span` is None for the widest span."""
    stem = slug(name)
    if span is not None:
        stem += naming.span_lead + slug(span, "span")
    if density != 1:
        stem += naming.density_lead + density_text(density).replace(".", "-")
    return stem


def unique(stems: list[str]) -> list[str]:
    """The stems in order, later doubles told apart by a number."""
    taken: set[str] = set()
    out = []
    for stem in stems:
        candidate, n = stem, 2
        while candidate in taken:
            candidate, n = f"{stem}-{n}", n + 1
        taken.add(candidate)
        out.append(candidate)
    return out
