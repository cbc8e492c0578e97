"""What is wrong with what shows."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.rule import Case, Found, rule
from skypane.numerals import share_text
from skypane.shown.keeps import MUCH_IN_VIEW, AreaFates, failing, in_view, summary


@rule("area", "wrong", "aim", "See the advice for this span.")
def area_not_whole(case: Case) -> Iterator[Found]:
    """A keep area is cut, lost or shown too small at some width of a span. Lost is what is less
    than half in view; where the frame depends on the viewport's height, the worst height counts."""
    for p in case.part.shown:
        for area in failing(p):
            yield (p.span.letter,), _said(summary(p, area))


@rule(
    "no-area",
    "unfinished",
    "aim",
    "Draw a keep area around what has to stay in view, on the map.",
)
def no_area(case: Case) -> Iterator[Found]:
    """Much of a picture is out of view at some width, and it has no keep area: nothing says whether
    what matters is among it (common practice)."""
    for p in case.part.shown:
        share = in_view(p)
        if p.original.keeps or p.effective.fit == "contain" or float(share.min()) >= MUCH_IN_VIEW:
            continue
        out, at = share_text(1 - float(share.min())), int(p.viewport_w[int(share.argmin())])
        yield (
            (p.span.letter,),
            f"{out} of {p.original.name} is out of view at {at} px, and no keep area says what"
            " matters.",
        )


def _said(fate: AreaFates) -> str:
    if fate.worst_share >= 1:
        return f"{fate.name} is shown too small from {fate.first_failing} px."
    at = f"at {fate.worst_at}" + (f" × {fate.worst_height}" if fate.worst_height else "")
    word = "lost" if fate.worst_share < 0.5 else "cut"
    out = share_text(1 - fate.worst_share)
    return f"{fate.name} is {word} from {fate.first_failing} px: {out} of it is out of view {at}."
