"""The `srcset` attribute (HTML Standard, "parsing a srcset attribute").

A bad candidate is dropped and the others stay. The text is read character by character as the
standard's algorithm does, because commas belong to URLs, to parentheses and to the list alike.
"""

from __future__ import annotations

import re
from functools import lru_cache
from typing import NamedTuple

from skypane.picks.engines import STANDARD, Engine

WHITESPACE = "\t\n\f\r "
_FLOAT = re.compile(r"-?(?:[0-9]+(?:\.[0-9]+)?|\.[0-9]+)(?:[eE][+-]?[0-9]+)?")
_GREATEST_FLOAT32 = 3.4028234663852886e38
_GREATEST_INT32 = 2147483647


class Candidate(NamedTuple):
    """One image of a source set. At most one of `density` and `width` is given."""

    url: str
    density: float | None = None
    width: int | None = None


class Dropped(NamedTuple):
    """A candidate that is not used, and why."""

    url: str
    why: str


class SourceSet(NamedTuple):
    candidates: tuple[Candidate, ...]
    dropped: tuple[Dropped, ...]


@lru_cache(maxsize=4096)
def parse_srcset(text: str, engine: Engine = STANDARD) -> SourceSet:
    """Candidates in document order. Widths beyond 32-bit integers make a candidate invalid, in all
    engines (seen)."""
    candidates: list[Candidate] = []
    dropped: list[Dropped] = []
    i, n = 0, len(text)
    while True:
        while i < n and (text[i] in WHITESPACE or text[i] == ","):
            i += 1
        if i >= n:
            return SourceSet(tuple(candidates), tuple(dropped))
        start = i
        while i < n and text[i] not in WHITESPACE:
            i += 1
        url = text[start:i]
        descriptors: list[str] = []
        if url.endswith(","):
            url = url.rstrip(",")
        else:
            descriptors, i = _descriptors(text, i)
        candidate = _candidate(url, descriptors, engine)
        if isinstance(candidate, Candidate):
            candidates.append(candidate)
        else:
            dropped.append(Dropped(url, candidate))


def _descriptors(text: str, i: int) -> tuple[list[str], int]:
    """Split descriptors; returns them and the position after the comma that ends the candidate."""
    found: list[str] = []
    current = ""
    in_parentheses = False
    while i < len(text):
        c = text[i]
        i += 1
        if in_parentheses:
            current += c
            in_parentheses = c != ")"
        elif c in WHITESPACE:
            if current:
                found.append(current)
                current = ""
        elif c == ",":
            break
        else:
            current += c
            in_parentheses = c == "("
    if current:
        found.append(current)
    return found, i


def _candidate(url: str, descriptors: list[str], engine: Engine) -> Candidate | str:
    width: int | None = None
    density: float | None = None
    height: int | None = None
    for d in descriptors:
        number, unit = d[:-1], d[-1]
        if unit in "wh" and number.isascii() and number.isdigit():
            if number[0] == "0" and not engine.leading_zeros and len(number) > 1:
                return f"{d} begins with a zero"
            digits = number.lstrip("0")
            if not digits:
                return f"{d} is zero"
            if len(digits) > 10 or int(digits) > _GREATEST_INT32:
                return f"{d[:20]} is too large"
            value = int(digits)
            if unit == "w":
                if width is not None or density is not None:
                    return f"{d} comes after another size"
                width = value
            else:
                if height is not None or density is not None:
                    return f"{d} comes after another size"
                height = value
        elif unit == "x" and _FLOAT.fullmatch(number):
            if width is not None or density is not None or height is not None:
                return f"{d} comes after another size"
            density = float(number)
            if density < 0:
                return f"{d} is negative"
            if engine.single_x and density > _GREATEST_FLOAT32:
                return f"{d} is too large"
        else:
            return f"“{d}” is no width (600w) or density (2x)"
    if height is not None and width is None:
        return "a height needs a width beside it"
    return Candidate(url, density, width)
