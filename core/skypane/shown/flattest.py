"""The flattest frame that holds keep areas and words."""

from __future__ import annotations

import numpy as np

from skypane.model import RatioHeight, Treatment
from skypane.shown.clear import block_edges, covered, outgrown
from skypane.shown.keeps import all_whole, whole_picture
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.shown.parts import replanned


def flattest_ratio(p: SpanPlan) -> float | None:
    """The flattest ratio of the frame, width over height, in which every keep area is whole, no
    word lies on one, and the words fit. None where no ratio does, or nothing binds.

    Tried downwards in steps of a fiftieth from what the words alone allow.
    """
    if not isinstance(p, ShownSpan):
        return None
    laid = p.laid
    asked = laid.asked.max(axis=0)
    if not asked.any():
        return None
    ratio = float((p.W[0] / np.maximum(asked, 1e-9)).min())
    for _ in range(160):
        rounded = np.floor(ratio * 1000) / 1000
        if rounded < 0.2:
            return None
        q = replanned(p, Treatment(height=RatioHeight(w=rounded, h=1)), p.original)
        if (
            isinstance(q, ShownSpan)
            and not outgrown(q).any()
            and all_whole(q.shown, q.keeps, whole_picture(q))
            and not covered(q, block_edges(q))
        ):
            return float(rounded)
        ratio *= 0.98
    return None
