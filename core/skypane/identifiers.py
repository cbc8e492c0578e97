"""One rule for what a class and the files of a placement are called (CSS Syntax 3 §4.3.11 "would
start an identifier").

A name as people write it becomes lower-case ASCII letters, digits and single hyphens that begin
with a letter: valid as a CSS selector without escapes, as an HTML class, and as a file name on
every file system. Other scripts are transliterated.
"""

from __future__ import annotations

from collections.abc import Collection, Iterable
from functools import lru_cache

from slugify import slugify

MOST_CHARACTERS = 60
#: Names of devices on old systems, which no file may have.
_RESERVED = {"con", "prn", "aux", "nul", *(f"{d}{i}" for d in ("com", "lpt") for i in range(1, 10))}


@lru_cache(maxsize=4096)
def plain(text: str) -> str:
    """The text in lower-case ASCII letters, digits and single hyphens; "" where nothing of it can
    be said so."""
    return slugify(text, max_length=MOST_CHARACTERS).strip("-")


def identifier(text: str, fallback: str = "picture") -> str:
    """The text as an identifier. What does not begin with a letter gets the fallback before it: "3
    boats" is picture-3-boats."""
    said = plain(text)
    if not said:
        return fallback
    if not said[0].isalpha():
        said = f"{fallback}-{said}"[:MOST_CHARACTERS].strip("-")
    return f"{said}-{fallback}" if said in _RESERVED else said


def next_free(stem: str, taken: Collection[str]) -> str:
    """The stem, or where it is taken the first of stem-2, stem-3 … that is not."""
    candidate, n = stem, 2
    while candidate in taken:
        candidate, n = f"{stem}-{n}", n + 1
    return candidate


def unique(stems: Iterable[str]) -> list[str]:
    """The stems in order, later doubles told apart by a number."""
    taken: dict[str, None] = {}
    for stem in stems:
        taken[next_free(stem, taken)] = None
    return list(taken)
