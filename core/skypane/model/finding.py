"""What is said of something that is wrong or wasteful."""

from __future__ import annotations

from typing import Literal

from skypane.model.condition import Feature
from skypane.values import Noun

#: The steps of a placement, in the order in which people work.
Step = Literal["frame", "aim", "words", "files", "code", "proof"]
#: wrong: visitors get less than was meant; unfinished: somebody still has to say something;
#: wasteful: visitors pay for what they do not see.
Severity = Literal["wrong", "unfinished", "wasteful"]


class Finding(Noun):
    """One thing that is wrong or wasteful: by which rule, in which part and spans, why, and the
    remedy. `runs` are the widths at which it is to be seen, of rules that look at each width; `at`
    is the value of the step that the remedy speaks of, or what is done there (`draw` an area,
    `trim` an original), "" where it is none alone. `when` are the conditions under
    which alone it is so."""

    rule: str
    severity: Severity
    step: Step
    part: int
    spans: tuple[str, ...]
    runs: tuple[tuple[int, int], ...] = ()
    sentence: str
    remedy: str
    at: str = ""
    when: tuple[Feature, ...] = ()
