"""What is wrong with pictures that have text beside them."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from skypane.findings.rule import Case, Found, rule
from skypane.kinds.beside.layout import LEAST_TEXT_PX, text_rooms, values_of
from skypane.numerals import number


@rule(
    "text-squeezed",
    "wrong",
    "frame",
    "Stack them there, 100 %, or give the picture a smaller share.",
    at="share_percent",
    kind="beside",
)
def text_squeezed(case: Case) -> Iterator[Found]:
    """Beside its picture a text has less than 160 px: hardly a word to a line (common practice)."""
    if case.part.index:
        return
    for spot in case.plan.spots:
        if not spot.shown:
            return
        v, room = values_of(spot), text_rooms(spot)
        at = np.flatnonzero(room < LEAST_TEXT_PX)
        if v.is_stacked or v.captions == "none" or not at.size:
            continue
        if not any(c.item and c.item.has_caption for c in spot.cells):
            continue
        widths, least = spot.viewports.widths, float(room.min())
        left = f"{number(round(least))} px" if least > 0 else "nothing"
        yield (
            (spot.span.letter,),
            f"The text has {left} beside its picture at {int(widths[int(room.argmin())])} px:"
            f" {number(v.share_percent)} % of the row are the picture's,"
            f" {number(v.between_px)} px lie between them. Up to {int(widths[at[-1]])} px it has"
            f" less than {number(LEAST_TEXT_PX)}.",
        )
