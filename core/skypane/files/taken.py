"""Which file of a part screens of one density take, at every width of a span."""

from __future__ import annotations

from typing import Any, NamedTuple

import numpy as np

from skypane.files.groups import drawn_widths
from skypane.files.renditions import Files
from skypane.model import Format, Rendition
from skypane.model.condition import Knows
from skypane.picks.choose import chosen_by_width, least_sufficient
from skypane.shown.nouns import ShownSpan
from skypane.values import once

#: What a browser does not know that knows nothing more modern than this.
_UNKNOWN: dict[Knows, tuple[Format, ...]] = {
    "avif": (),
    "webp": ("avif",),
    "jpeg": ("avif", "webp"),
}


def as_known(files: Files, knows: Knows) -> Files:
    """The files that a browser knows, of each group; all of a group of which it knows none."""
    unknown = _UNKNOWN[knows]
    if not unknown:
        return files
    return tuple(
        (g, tuple(r for r in made if r.format not in unknown) or made) for g, made in files
    )


class Taken(NamedTuple):
    """What screens of one density take over a span: `files` of the most modern format from the
    narrowest, and which of them at each width."""

    files: tuple[Rendition, ...]
    at: np.ndarray[Any, np.dtype[np.int64]]


def taken_files(files: Files, part: int, p: ShownSpan, density: float) -> Taken | None:
    """What `picks` says that a browser takes, at every width at once."""
    letter = p.span.letter
    made = next((m for g, m in files if g.part == part and letter in g.letters), ())
    mine = sorted((r for r in made if r.format == made[0].format), key=lambda r: r.width_px)
    if not mine:
        return None
    if mine[0].density is None:
        return Taken(tuple(mine), _by_width(p, tuple(r.width_px for r in mine), density))
    enough = least_sufficient([r.density or 0 for r in mine], density)
    return Taken(tuple(mine), np.broadcast_to(np.int64(enough), p.viewport_w.shape))


@once
def _by_width(
    p: ShownSpan, widths: tuple[int, ...], density: float
) -> np.ndarray[Any, np.dtype[np.int64]]:
    """Which of files of these widths in px is taken at every width of a span."""
    return chosen_by_width(widths, drawn_widths(p), density)
