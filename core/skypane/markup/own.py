"""How a kind writes its parts, where they do not simply stand one after the other in a box."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from skypane.markup.lines import Line
from skypane.shown.nouns import Plan

#: Writes a placement around the lines of its parts, which are in their order.
Writes = Callable[[Plan, Sequence[tuple[Line, ...]]], tuple[Line, ...]]

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
