"""What is wrong with the cuts of a logo."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.lettering import too_low
from skypane.findings.rule import Case, Found, rule
from skypane.galleries.logo import least_width
from skypane.kinds.logo.cuts import cut_of_span, hidden_cuts
from skypane.kinds.logo.layout import values_of


@rule(
    "lettering-small",
    "wrong",
    "frame",
    "Show a shorter cut there, or make the box larger.",
    at="width",
    kind="logo",
)
def lettering_small(case: Case) -> Iterator[Found]:
    """A cut of a logo is drawn so small that its lettering cannot be read (rules §12)."""
    for p in case.part.shown:
        cut = cut_of_span(p)
        found = cut and too_low(p, cut, least_width(cut, values_of(p.spot).least_px))
        if found:
            yield found


@rule(
    "cut-hides-others",
    "wrong",
    "frame",
    "Put it last, or say how high its lettering is.",
    at="cuts",
    kind="logo",
)
def cut_hides_others(case: Case) -> Iterator[Found]:
    """A cut without lettering stands before others: it can be read at any width, so that none of
    them is ever needed."""
    hidden = hidden_cuts(values_of(case.plan.spots[-1]).cuts)
    if hidden:
        yield (), f"Cut {hidden[0]} has no lettering and hides the {len(hidden)} after it."
