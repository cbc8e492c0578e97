"""What is wrong with placements that stand in for each other."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.rule import Case, Found, rule
from skypane.shown.sets import shown_of_set


@rule(
    "one-of-a-set",
    "wrong",
    "frame",
    "Let each span show one of them: set the others to nothing there, in Aim.",
    at="one_of",
)
def one_of_a_set(case: Case) -> Iterator[Found]:
    """Of placements that stand in for each other none shows at some width, or more than one
    (rules §1 and §6)."""
    if case.part.index:
        return
    found = shown_of_set(case.site, case.plan.placement, case.siblings)
    for letter, names in (found or {}).items():
        if len(names) != 1:
            name = case.plan.placement.one_of
            which = f"{' and '.join(names)} show" if names else "none shows"
            yield (letter,), f"Of {name} {which} in span {letter}, and just one should."
