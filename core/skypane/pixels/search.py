"""The coarsest quality whose likeness reaches a target, in few encodes (02-rules §10).

−ln(1 − SSIM) grows nearly as a straight line with the quality of every encoder used here (measured
on the demo's photographs), so that one encode and the slope tell where the target is met. The slope
and the place to begin come from the files of the same crop and format before this one. Qualities
are steps on a coarse scale, which costs one or two per cent of bytes and saves encodes.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Generic, TypeVar

Made = TypeVar("Made")

#: A step that fails by the slope with this share of it is taken to fail without being tried.
SURE = 1.0
_ALMOST_ONE = 1 - 1e-6


def linear(ssim: float) -> float:
    return -math.log(1 - min(max(ssim, 0.0), _ALMOST_ONE))


@dataclass(frozen=True)
class Scale:
    """Qualities of one encoder, the coarsest first, where to begin, and how much `linear` grows
    from one to the next."""

    qualities: tuple[int, ...]
    begin: int
    slope: float

    def nearest(self, quality: int) -> int:
        """The place of a quality on the scale."""
        return min(range(len(self.qualities)), key=lambda i: abs(self.qualities[i] - quality))


@dataclass(frozen=True)
class Found(Generic[Made]):
    """What was made at the coarsest quality that reaches the target, or at the finest there is."""

    made: Made
    quality: int
    ssim: float
    encodes: int


@dataclass
class Learned:
    """What earlier files of one crop and format tell of the next: where on the scale the target was
    met, in fractions of a step, and the slope."""

    at: float | None = None
    slope: float | None = None
    seen: list[float] = field(default_factory=list)

    def begin(self, scale: Scale) -> int:
        """Where to try first: where the last ones say that the target is met."""
        if self.at is None:
            return scale.nearest(scale.begin)
        # the next file is about as far from the last as that was from the one before
        drift = self.seen[-1] - self.seen[-2] if len(self.seen) > 1 else 0.0
        at = math.ceil(self.at + max(-1.0, min(1.0, drift)) - 1e-9)
        return max(0, min(len(scale.qualities) - 1, at))

    def take(self, at: float, slope: float | None) -> None:
        self.at = at
        self.seen.append(at)
        if slope is not None and slope > 0:
            self.slope = slope if self.slope is None else 0.5 * (self.slope + slope)


def coarsest(
    scale: Scale,
    target: float,
    encode: Callable[[int], tuple[Made, float]],
    learned: Learned | None = None,
) -> Found[Made]:
    """Find it. `encode` makes one file at a quality and says its SSIM."""
    learned = learned if learned is not None else Learned()
    wanted, last = linear(target), len(scale.qualities) - 1
    tried: dict[int, tuple[Made, float, float]] = {}

    def at(i: int) -> float:
        if i not in tried:
            made, ssim = encode(scale.qualities[i])
            tried[i] = (made, ssim, linear(ssim))
        return tried[i][2]

    def slope() -> float:
        if len(tried) > 1:
            low, high = min(tried), max(tried)
            found = (tried[high][2] - tried[low][2]) / (high - low)
            if found > 0:
                return found
        return learned.slope or scale.slope

    i = learned.begin(scale)
    while True:
        here = at(i)
        passes = [k for k, (_, _, u) in tried.items() if u >= wanted]
        fails = [k for k, (_, _, u) in tried.items() if u < wanted]
        best = min(passes) if passes else None
        worst = max((k for k in fails if best is None or k < best), default=None)
        if best is not None and (best == 0 or worst == best - 1):
            break
        if best is None and last in tried:
            best = last
            break
        cross = i + (wanted - here) / slope()
        if best is not None and i == best and here - wanted < SURE * slope():
            break
        step = math.ceil(cross - 1e-9)
        low = 0 if worst is None else worst + 1
        high = last if best is None else best - 1
        i = max(low, min(high, step))
    made, ssim, u = tried[best]
    learned.take(best - (u - wanted) / slope(), slope() if len(tried) > 1 else None)
    return Found(made, scale.qualities[best], ssim, len(tried))
