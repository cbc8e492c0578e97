"""What is wrong with what shows."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.rule import Case, Found, Matter, plain, rule
from skypane.numerals import share_text
from skypane.shown.keeps import (
    MUCH_IN_VIEW,
    WHOLE_,
    AreaFates,
    failing,
    fate_codes,
    in_view,
    summary,
)
from skypane.widths.runs import stretches


@rule("area", "wrong", "aim", "See the advice for this span.")
def area_not_whole(case: Case) -> Iterator[Found]:
    """A keep area is cut, lost or shown too small at some width of a span. Lost is what is less
    than half in view; where the frame depends on the viewport's height, the worst height counts."""
    for p in case.part.shown:
        for area in failing(p):
            fate = summary(p, area)
            codes, _ = fate_codes(p, area)
            runs = tuple(stretches(p.viewport_w, codes != WHOLE_))
            yield Matter(area.name, p.span.letter, runs, 1 - fate.worst_share, _said(fate))


@rule(
    "no-area",
    "unfinished",
    "aim",
    "Draw a keep area around what has to stay in view, on the map.",
    at="draw",
)
def no_area(case: Case) -> Iterator[Found]:
    """Much of a picture is out of view at some width, and it has no keep area: nothing says whether
    what matters is among it (common practice)."""
    for p in case.part.shown:
        share = in_view(p)
        if p.original.keeps or p.effective.fit == "contain" or float(share.min()) >= MUCH_IN_VIEW:
            continue
        least = float(share.min())
        out, at = share_text(1 - least), int(p.viewport_w[int(share.argmin())])
        yield Matter(
            p.original.name,
            p.span.letter,
            tuple(stretches(p.viewport_w, share < MUCH_IN_VIEW)),
            1 - least,
            f"Much of {plain(p.original.name)} is out of view {{where}}, at most {out} at {at} px,"
            " and no keep area says what matters.",
        )


def _said(fate: AreaFates) -> str:
    if fate.worst_share >= 1:
        return f"{plain(fate.name)} is shown too small {{where}}."
    at = f"at {fate.worst_at}" + (f" × {fate.worst_height}" if fate.worst_height else "")
    word = "lost" if fate.worst_share < 0.5 else "cut"
    out = share_text(1 - fate.worst_share)
    return f"{plain(fate.name)} is {word} {{where}}: {out} of it is out of view {at}."
