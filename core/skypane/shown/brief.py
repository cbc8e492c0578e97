"""What a picture has to look like that does not exist yet: px size, ratio and safe area for given
frames (rules §3 and §4).

A picture of ratio R that covers a frame of ratio r, centred, shows min(1, r/R) of its width and
min(1, R/r) of its height. In view in every frame are the least of both. Needed px follow from the
drawn width, max(W, H·R), in the largest frame.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from skypane.geometry import Rect
from skypane.numerals import whole_px
from skypane.shown.nouns import SpanPlan
from skypane.values import Noun
from skypane.widths.frames import Floats


class Brief(Noun):
    """For whoever makes the picture. `safe` is what has to hold all that matters; sizes are image
    px at `density`."""

    spans: tuple[str, ...]
    ratio: float
    width_px: int
    height_px: int
    density: float
    safe: Rect
    frame_ratios: tuple[float, float]


def brief(
    plans: Sequence[SpanPlan], density: float = 2, ratio: float | None = None
) -> Brief | None:
    """The picture that these spans ask for: those that wait for one, or all that show one where
    none waits. None where none does.

    Without a wish for the ratio, that of the frames which needs the fewest px is taken.
    """
    shown = [p for p in plans if p.effective.waits] or [
        p for p in plans if p.effective.show == "picture"
    ]
    if not shown:
        return None
    W = np.concatenate([p.W.ravel() for p in shown])
    H = np.concatenate([p.H.ravel() for p in shown])
    ratios = W / H
    if ratio is None:
        candidates = np.linspace(float(ratios.min()), float(ratios.max()), 65)
        ratio = float(min(candidates, key=lambda r: _drawn(W, H, r) ** 2 / r))
    drawn = _drawn(W, H, ratio)
    width = whole_px(drawn * density)
    across = min(1.0, float((ratios / ratio).min()))
    down = min(1.0, float((ratio / ratios).min()))
    edges = ((1 - across) / 2, (1 + across) / 2, (1 - down) / 2, (1 + down) / 2)
    return Brief(
        spans=tuple(p.span.letter for p in shown),
        ratio=round(ratio, 4),
        width_px=width,
        height_px=whole_px(width / ratio),
        density=density,
        safe=Rect.between(*(round(v, 5) for v in edges)),
        frame_ratios=(round(float(ratios.min()), 4), round(float(ratios.max()), 4)),
    )


def _drawn(W: Floats, H: Floats, ratio: float) -> float:
    """The greatest drawn width in CSS px."""
    return float(np.maximum(W, H * ratio).max())
