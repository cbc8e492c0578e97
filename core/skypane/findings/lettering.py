"""Lettering that is drawn too small to be read, of a logo's cut or of a mark."""

from __future__ import annotations

import numpy as np

from skypane.findings.rule import Matter, plain, widths_at
from skypane.galleries.logo import Cut
from skypane.shown.lettering import drawn_cut
from skypane.shown.nouns import ShownSpan


def too_low(p: ShownSpan, cut: Cut, least_px: float) -> Matter | None:
    """Where a cut is drawn narrower than `least_px`, from which its lettering can be read."""
    drawn = drawn_cut(p)
    at = np.flatnonzero(drawn < least_px - 1e-6)
    if not at.size:
        return None
    narrowest = float(drawn.min())
    high = narrowest / cut.ratio * (cut.lettering or 0)
    return Matter(
        p.original.name,
        p.span.letter,
        widths_at(p.viewport_w, at),
        least_px / max(narrowest, 1.0),
        f"The lettering of {plain(p.original.name)} is {high:.1f} px high at worst {{where}}: it is"
        f" drawn {narrowest:.0f} px wide and can be read from {least_px:.0f} px.",
    )
