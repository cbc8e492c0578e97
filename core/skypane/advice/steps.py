"""One step of the walk, and what a walk comes to."""

from __future__ import annotations

from typing import Literal

from skypane.model import Treatment
from skypane.values import Noun

StepKind = Literal["aim", "uncrop", "whole", "ratio", "crop", "taller", "original", "colour"]


class AdviceStep(Noun):
    """One step of the walk. `label` is what the button says, `treatment` what it sets; both empty
    where it does not work.

    `also` are values that narrower spans take for their own, so that nothing but this span changes.
    """

    kind: StepKind
    works: bool
    why: str
    label: str = ""
    treatment: Treatment | None = None
    also: dict[str, Treatment] = {}
    figures: dict[str, float] = {}


class Advice(Noun):
    """What to do about the failing areas of one span. `best` is the index of the first step that
    works, None if none does."""

    span: str
    failing: tuple[str, ...]
    steps: tuple[AdviceStep, ...]
    best: int | None
