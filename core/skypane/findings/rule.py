"""A rule: one function that looks at one part of a placement and says what it finds."""

from __future__ import annotations

import inspect
from collections.abc import Callable, Iterator
from dataclasses import dataclass

from skypane.files.renditions import Files
from skypane.files.rows import FileRow, file_rows
from skypane.model import Severity, Site, Step
from skypane.shown.nouns import PartPlan, Plan
from skypane.shown.sets import Siblings
from skypane.shown.under import Pixels, no_pixels


@dataclass(frozen=True)
class Case:
    """What a rule looks at: a part of a computed placement, and the files of that part; where the
    px of originals are to be had, and the other placements of the page."""

    plan: Plan
    part: PartPlan
    files: Files
    pixels: Pixels = no_pixels
    siblings: Siblings = tuple

    @property
    def site(self) -> Site:
        return self.plan.site

    @property
    def rows(self) -> tuple[FileRow, ...]:
        return file_rows(self.files, {})


#: What a rule finds: the letters of the spans (none: all of them), and the sentence.
Found = tuple[tuple[str, ...], str]
Look = Callable[[Case], Iterator[Found]]


@dataclass(frozen=True)
class Rule:
    """`id` stays as it is for ever: others may have written it down. `remedy` is the same wherever
    the rule finds something."""

    id: str
    severity: Severity
    step: Step
    remedy: str
    look: Look

    @property
    def about(self) -> str:
        """What it looks for, in a paragraph."""
        return inspect.getdoc(self.look) or ""


RULES: list[Rule] = []


def rule(id: str, severity: Severity, step: Step, remedy: str) -> Callable[[Look], Look]:
    """Make a function a rule. Its docstring says what it looks for, and why."""

    def made(look: Look) -> Look:
        RULES.append(Rule(id, severity, step, remedy, look))
        return look

    return made
