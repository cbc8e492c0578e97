"""What stands beside the hand: size, ratio, what shows, and how areas fare."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from skypane.model.frame import USUAL_RATIOS
from skypane.numerals import number
from skypane.shown.keeps import fates, in_view
from skypane.shown.nouns import ShownSpan, SpanPlan

#: A ratio is called by whole numbers where it is this near to them, as a share.
NEAR = 0.004


def told(p: SpanPlan) -> tuple[str, ...]:
    """Of a part at one viewport: “1280 × 640”, “2:1”, “shows 84 %”, “Red boat whole”."""
    w, h = float(p.W[0, 0]), float(p.H[0, 0])
    if p.effective.show == "nothing" or min(w, h) <= 0:
        return ("not shown",)
    return (f"{number(round(w, 1))} × {number(round(h, 1))}", ratio_words(w / h), *_shown(p))


def ratio_words(ratio: float) -> str:
    near = min(USUAL_RATIOS, key=lambda r: abs(r[0] / r[1] / ratio - 1))
    if abs(near[0] / near[1] / ratio - 1) < NEAR:
        return f"{near[0]}:{near[1]}"
    return f"{number(round(ratio, 2))}:1" if ratio >= 0.1 else f"1:{number(round(1 / ratio, 2))}"


def _shown(p: SpanPlan) -> Iterator[str]:
    if not isinstance(p, ShownSpan):
        return
    share = float(np.min(in_view(p)))
    yield f"shows {number(round(share * 100))} %"
    words = {a.name: str(fates(p, a)[0][0]) for a in p.keeps}
    wrong = [f"{name} {fate}" for name, fate in words.items() if fate != "whole"]
    if wrong:
        yield from wrong[:3]
    elif len(words) == 1:
        yield f"{next(iter(words))} whole"
    elif words:
        yield f"all {len(words)} whole"
