"""How a kind writes its parts, where they do not simply stand one after the other in a box."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from skypane.markup.elements import Element
from skypane.shown.nouns import Plan

#: Writes a placement around the pictures of its parts, which are in their order; None for a part
#: that has none yet.
Writes = Callable[[Plan, Sequence[Element | None]], Sequence[Element]]

_WRITERS: dict[str, Writes] = {}


def writes(kind: str) -> Callable[[Writes], Writes]:
    """Make a function write the placements of a kind."""

    def made(writer: Writes) -> Writes:
        _WRITERS[kind] = writer
        return writer

    return made


def writer_of(kind: str) -> Writes | None:
    """What writes the placements of a kind; None where it has a box at most."""
    return _WRITERS.get(kind)
