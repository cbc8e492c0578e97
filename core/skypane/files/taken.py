"""Which file of a part screens of one density take, at every width of a span."""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np

from skypane.files.groups import drawn_widths
from skypane.files.renditions import Files
from skypane.model import Rendition
from skypane.shown.nouns import ShownSpan


class Taken(NamedTuple):
    """What screens of one density take over a span: `files` of the most modern format from the
    narrowest, and which of them at each width."""

    files: tuple[Rendition, ...]
    at: np.ndarray[Any, np.dtype[np.int64]]


def taken_files(files: Files, part: int, p: ShownSpan, density: float) -> Taken | None:
    """The least file that suffices, else the greatest (see `picks`)."""
    letter = p.span.letter
    made = next((m for g, m in files if g.part == part and letter in g.letters), ())
    mine = sorted((r for r in made if r.format == made[0].format), key=lambda r: r.width_px)
    if not mine:
        return None
    if mine[0].density is None:
        needed = np.round(drawn_widths(p) * density, 4)
        index = np.searchsorted([r.width_px for r in mine], needed, side="left")
        return Taken(tuple(mine), np.minimum(index, len(mine) - 1))
    enough = next((i for i, r in enumerate(mine) if (r.density or 0) >= density), len(mine) - 1)
    return Taken(tuple(mine), np.broadcast_to(np.int64(enough), p.viewport_w.shape))
