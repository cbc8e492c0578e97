"""A placement shaped by hand: what can be pulled at one viewport, and what is set by it."""

from skypane.pulls.here import Here, here
from skypane.pulls.nouns import HandleReading, Held, Lines, Pulled, PulledTo, StageReading, StopAt
from skypane.pulls.pulled import pulled
from skypane.pulls.stage import stage

__all__ = [
    "HandleReading",
    "Held",
    "Here",
    "Lines",
    "Pulled",
    "PulledTo",
    "StageReading",
    "StopAt",
    "here",
    "pulled",
    "stage",
]
