"""Words on a picture where they stand: what every room above asks of a kind that has words."""

from __future__ import annotations

from typing import NamedTuple

from skypane.layouts.spot import Frame
from skypane.model import Place
from skypane.widths.frames import Floats
from skypane.words.block import Block


def column_and_row(place: Place) -> tuple[float, float]:
    """Where a place is, as fractions of the room that is left: 0 the start or top, 1 the end or
    bottom."""
    row, _, column = place.partition("-")
    if not column and row in ("start", "end"):
        row, column = "middle", row
    across = {"start": 0.0, "end": 1.0}.get(column, 0.5)
    down = {"top": 0.0, "bottom": 1.0}.get(row, 0.5)
    return across, down


class Laid(NamedTuple):
    """A picture with its words at every viewport of a span, in CSS px from the top left corner of
    the placement's box.

    `area` is the room that the picture fills, (heights,
    widths); `box_h` the height of the whole box. `block` is None where no words show; its place is
    `words`. `own` is the height that the height rule alone gives; `asked` the one that what lies in
    the picture's room needs.
    """

    area: Frame
    own: Floats
    asked: Floats
    block: Block | None
    words: Frame | None
    box_w: Floats
    box_h: Floats
