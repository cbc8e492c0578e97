"""Texts that can be stored, shown and written into files of any kind."""

from __future__ import annotations

from typing import Any

#: XML 1.0 (§2.2) and HTML know no such character, and whatever is written in C ends at it.
NUL = "\0"

SENTENCE = "A text in this holds a character that cannot be shown (U+0000). Take it out."


def holds_nul(value: Any) -> bool:
    """Whether any text of what was read from JSON, names of fields included, holds NUL."""
    if isinstance(value, str):
        return NUL in value
    if isinstance(value, dict):
        return any(holds_nul(name) or holds_nul(inner) for name, inner in value.items())
    return isinstance(value, list) and any(map(holds_nul, value))
