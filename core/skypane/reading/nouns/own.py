"""What a kind reads of its own."""

from __future__ import annotations

from skypane.reading.nouns.bands import Band
from skypane.values import Noun


class OwnReading(Noun):
    """What a kind reads of its own; each says more, and its kind. `bands` count among all others
    for the verdict of a width."""

    bands: tuple[Band, ...] = ()
