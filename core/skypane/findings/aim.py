"""What is wrong with what shows."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.rule import Case, Found, rule
from skypane.numerals import share_text
from skypane.shown.keeps import AreaFates, failing, summary


@rule("area", "wrong", "aim", "See the advice for this span.")
def area_not_whole(case: Case) -> Iterator[Found]:
    """A keep area is cut, lost or shown too small at some width of a span. Lost is what is less
    than half in view; where the frame depends on the viewport's height, the worst height counts."""
    for p in case.part.shown:
        for area in failing(p):
            yield (p.span.letter,), _said(summary(p, area))


def _said(fate: AreaFates) -> str:
    if fate.worst_share >= 1:
        return f"{fate.name} is shown too small from {fate.first_failing} px."
    at = f"at {fate.worst_at}" + (f" × {fate.worst_height}" if fate.worst_height else "")
    word = "lost" if fate.worst_share < 0.5 else "cut"
    out = share_text(1 - fate.worst_share)
    return f"{fate.name} is {word} from {fate.first_failing} px: {out} of it is out of view {at}."
