"""What is wrong with the cuts of a logo."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from skypane.findings.rule import Case, Found, Matter, plain, rule, widths_at
from skypane.galleries.logo import least_width
from skypane.model import LogoValues
from skypane.shown.cuts import cut_of_span, drawn_cut, hidden_cuts


@rule(
    "lettering-small",
    "wrong",
    "frame",
    "Show a shorter cut there, or make the box larger.",
    at="width",
)
def lettering_small(case: Case) -> Iterator[Found]:
    """A cut of a logo is drawn so small that its lettering cannot be read (02-rules §12)."""
    for p in case.part.shown:
        if not isinstance(p.spot.values, LogoValues):
            return
        cut, least_px = cut_of_span(p), p.spot.values.least_px
        if cut is None:
            continue
        drawn, least = drawn_cut(p), least_width(cut, least_px)
        at = np.flatnonzero(drawn < least - 1e-6)
        if at.size:
            narrowest = float(drawn.min())
            high = narrowest / cut.ratio * (cut.lettering or 0)
            yield Matter(
                p.original.name,
                p.span.letter,
                widths_at(p.viewport_w, at),
                least / max(narrowest, 1.0),
                f"The lettering of {plain(p.original.name)} is {high:.1f} px high at worst"
                f" {{where}}: it is drawn {narrowest:.0f} px wide and can be read from"
                f" {least:.0f} px.",
            )


@rule(
    "cut-hides-others",
    "wrong",
    "frame",
    "Put it last, or say how high its lettering is.",
    at="cuts",
)
def cut_hides_others(case: Case) -> Iterator[Found]:
    """A cut without lettering stands before others: it can be read at any width, so that none of
    them is ever needed."""
    values = case.plan.spots[-1].values
    hidden = hidden_cuts(values.cuts) if isinstance(values, LogoValues) else ()
    if hidden:
        yield (), f"Cut {hidden[0]} has no lettering and hides the {len(hidden)} after it."
