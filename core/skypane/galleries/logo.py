"""The cuts of one logo: down to which width each can be read, and which of them shows where
(rules §12)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

#: Lettering less high than this cannot be read (common practice).
LEAST_LETTERING_PX = 11.0


class Cut(NamedTuple):
    """One cut, the fullest first. `lettering` is the height of its lettering as a share of the
    cut's height; None where it has none."""

    ratio: float
    lettering: float | None


def least_width(cut: Cut, least_px: float = LEAST_LETTERING_PX) -> float:
    """The width in CSS px down to which its lettering can be read; 0 where it has none."""
    return least_px * cut.ratio / cut.lettering if cut.lettering else 0.0


def never_shown(cuts: Sequence[Cut]) -> tuple[int, ...]:
    """The cuts that an earlier one without lettering hides: it can be read at any width."""
    bare = next((i for i, c in enumerate(cuts) if not c.lettering), len(cuts))
    return tuple(range(bare + 1, len(cuts)))


def shown_cut(cuts: Sequence[Cut], widths: Sequence[float], least_px: float) -> int:
    """The fullest cut that can be read where each would be drawn `widths` CSS px wide; the last
    where none can."""
    for i, (cut, width) in enumerate(zip(cuts, widths, strict=True)):
        if width >= least_width(cut, least_px) - 1e-9:
            return i
    return len(cuts) - 1


def readable_from(
    cuts: Sequence[Cut], least_px: float = LEAST_LETTERING_PX
) -> tuple[tuple[int, float], ...]:
    """The cuts that show as the width grows from nothing, each with the width in CSS px from which
    it does: the breakpoints of the logo's own width. A cut for which a fuller one can be read at
    all its widths never shows."""
    least = [least_width(c, least_px) for c in cuts]
    last = len(cuts) - 1
    out: list[tuple[int, float]] = []
    fuller = float("inf")
    for i, width in enumerate(least):
        start = 0.0 if i == last else width
        if start < fuller:
            out.append((i, start))
            fuller = start
    return tuple(reversed(out))
