"""What a kind reads of its own: its part of what a desk shows, with bands that count among all."""

from __future__ import annotations

from collections.abc import Callable, Mapping

from skypane.model import Original
from skypane.reading.nouns import OwnReading
from skypane.shown.nouns import Plan
from skypane.shown.under import Pixels

Reads = Callable[[Plan, Mapping[int, Original], Pixels], OwnReading]

_READERS: dict[str, Reads] = {}


def reads(kind: str) -> Callable[[Reads], Reads]:
    """Make a function read what placements of a kind show of their own."""

    def made(reader: Reads) -> Reads:
        _READERS[kind] = reader
        return reader

    return made


def own_reading(plan: Plan, originals: Mapping[int, Original], pixels: Pixels) -> OwnReading | None:
    """None where the kind reads nothing of its own."""
    reader = _READERS.get(plan.layout.kind)
    return reader(plan, originals, pixels) if reader else None
