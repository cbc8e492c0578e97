"""A remedy for one span, and what a walk down the remedies comes to."""

from __future__ import annotations

from typing import Literal

from pydantic import JsonValue

from skypane.model import Treatment
from skypane.values import Answer

RemedyKind = Literal[
    "aim",
    "uncrop",
    "whole",
    "ratio",
    "words",
    "crop",
    "taller",
    "original",
    "colour",
    # of words
    "scrim",
    "ink",
    "place",
    "box",
    "below",
    "smaller",
    "higher",
    "background",
]


class Remedy(Answer):
    """One way to help. `label` is what the button says, `treatment` what it sets; both empty where
    it does not work.

    `layout` are values of the kind itself. `follow` are the narrower spans to which what it sets is
    handed down, so that they change with this one, from the widest.
    """

    kind: RemedyKind
    works: bool
    why: str
    label: str = ""
    treatment: Treatment | None = None
    layout: dict[str, JsonValue] = {}
    follow: tuple[str, ...] = ()
    figures: dict[str, float] = {}


def works(kind: RemedyKind, why: str, label: str, treatment: Treatment, **figures: float) -> Remedy:
    """A remedy that helps."""
    return Remedy(kind=kind, works=True, why=why, label=label, treatment=treatment, figures=figures)


def lays(
    kind: RemedyKind, why: str, label: str, layout: dict[str, JsonValue], **figures: float
) -> Remedy:
    """A remedy that helps, by values of the kind itself."""
    return Remedy(kind=kind, works=True, why=why, label=label, layout=layout, figures=figures)


def fails(kind: RemedyKind, why: str, **figures: float) -> Remedy:
    """A remedy that does not help, and why."""
    return Remedy(kind=kind, works=False, why=why, figures=figures)


class Advice(Answer):
    """What to do about the failing areas of one span. `best` is the index of the first remedy that
    works, None if none does."""

    span: str
    failing: tuple[str, ...]
    steps: tuple[Remedy, ...]
    best: int | None
