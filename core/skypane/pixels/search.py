"""The coarsest quality whose likeness reaches a target, in few encodes (rules §10).

−ln(1 − SSIM) grows nearly as a straight line with −ln of the step that an encoder quantises with
(measured on the demo's photographs), so that one encode and the slope tell where the target is met.
A sample of a large picture tells where to begin. What is found follows from the picture alone,
whatever was made before it, so that the same picture is the same file in every run.
"""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Callable
from dataclasses import dataclass
from typing import Generic, NamedTuple, TypeVar

Made = TypeVar("Made")

#: By so much `linear` may lie above the target when the search ends, for each file that was tried:
#: a per cent of bytes more in the mean, for half an encode less.
NEAR = 0.06
#: By so much a guess is put above the target, so that it seldom falls short of it.
ABOVE = 0.25 * NEAR
#: A sample is looked at no more often than this, and no more once it is so near to the target.
SAMPLED, SAMPLED_NEAR = 3, 0.15
#: After so many tries the rest of the scale is halved.
LINES = 4
_ALMOST_ONE = 1 - 1e-6


def linear(ssim: float) -> float:
    """−ln(1 − SSIM), up to that of an SSIM of 0.999999."""
    return -math.log(1 - min(max(ssim, 0.0), _ALMOST_ONE))


#: A picture that even the coarsest quality keeps so alike is smooth.
SMOOTH = linear(0.97)


@dataclass(frozen=True)
class Scale:
    """Qualities of one encoder, the coarsest first; `fine`, how fine each is: −ln of the step that
    it quantises with; the quality to begin with, and how much `linear` grows with `fine` there;
    `faithful`, the quality from which on smooth surfaces keep their colour. `sample_lower`: by so
    much a sample of a picture reads lower than the whole."""

    qualities: range
    fine: Callable[[int], float]
    begin: int
    slope: float
    faithful: int
    sample_lower: float = 0.0

    def fine_at(self, place: int) -> float:
        return self.fine(self.qualities[place])


@dataclass(frozen=True)
class Found(Generic[Made]):
    """What was made at a quality that reaches the target, or at the finest there is."""

    made: Made
    quality: int
    ssim: float
    encodes: int


class Guess:
    """What was tried, as a line of `linear` over `fine`: between the last that falls short and the
    first that does not, or through the two nearest to the target."""

    def __init__(self, scale: Scale, wanted: float) -> None:
        self.scale, self.wanted = scale, wanted
        self.known: dict[int, float] = {}

    def _line(self) -> tuple[float, float, float]:
        """A point (fine, linear) and the slope."""
        fine, usual = self.scale.fine_at, self.scale.slope
        short = max((i for i, u in self.known.items() if u < self.wanted), default=-1)
        first = min(
            (i for i, u in self.known.items() if u >= self.wanted and i > short), default=-1
        )
        if 0 <= short < first:
            rise = (self.known[first] - self.known[short]) / (fine(first) - fine(short))
            return fine(first), self.known[first], rise
        near = sorted(self.known, key=lambda i: abs(self.known[i] - self.wanted))[:2]
        if len(near) == 2:
            found = (self.known[near[0]] - self.known[near[1]]) / (fine(near[0]) - fine(near[1]))
            # two that lie close together say little of it
            usual = min(max(found, usual / 2), usual * 2)
        return fine(near[0]), self.known[near[0]], usual

    def at(self, place: int) -> float:
        """What is expected of a place."""
        fine, known, slope = self._line()
        return known + (self.scale.fine_at(place) - fine) * slope

    @property
    def is_smooth(self) -> bool:
        """Whether the coarsest quality was tried, and shows that the picture is smooth."""
        return self.known.get(0, 0.0) > SMOOTH

    def place(self, above: float = 0.0) -> int:
        """The first place on the scale that is expected to reach the target, and `above` more."""
        if not self.known:
            return self.scale.qualities.index(self.scale.begin)
        fine, known, slope = self._line()
        wanted = fine + (self.wanted + above - known) / slope
        qualities = self.scale.qualities
        at = bisect_left(qualities, wanted - 1e-9, key=self.scale.fine)
        return min(at, len(qualities) - 1)


class Begin(NamedTuple):
    """Where on the scale to begin, and whether the picture is known to be smooth. `samples`: how
    many tries that took."""

    place: int
    is_smooth: bool = False
    samples: int = 0


def begun(scale: Scale, target: float, sampled: Callable[[int], float]) -> Begin:
    """Where to begin by a sample of a picture, whose SSIM at a quality `sampled` says."""
    guess = Guess(scale, linear(target) - scale.sample_lower)
    for _ in range(SAMPLED):
        i = guess.place()
        if i in guess.known:
            break
        guess.known[i] = linear(sampled(scale.qualities[i]))
        if abs(guess.known[i] - guess.wanted) < SAMPLED_NEAR:
            break
    if guess.is_smooth:
        return Begin(scale.qualities.index(scale.faithful), True, len(guess.known))
    return Begin(guess.place(ABOVE), False, len(guess.known))


def coarsest(
    scale: Scale,
    target: float,
    encode: Callable[[int], tuple[Made, float]],
    begin: Begin | None = None,
) -> Found[Made]:
    """Find it. `encode` makes one file at a quality and says its SSIM. The more was tried, the
    farther above the target the search may end.

    Of a smooth picture the likeness of luma says little: it is made at the faithful quality or
    finer, and so is whatever is to be as alike as that, so that more likeness is never less."""
    guess = Guess(scale, linear(target))
    begin = begin or Begin(guess.place())
    faithful = scale.qualities.index(scale.faithful)
    tried: dict[int, tuple[Made, float]] = {}
    # the target is met between these: `low` is the first place that may reach it, `high` does
    low, high = faithful if guess.wanted >= SMOOTH else 0, len(scale.qualities) - 1
    i = max(begin.place, low)
    while low < high or high not in tried:
        tried[i] = encode(scale.qualities[i])
        here = guess.known[i] = linear(tried[i][1])
        if here >= guess.wanted:
            high = i
            near = here - guess.wanted < NEAR * len(tried)
            if near or (i and guess.at(i - 1) < guess.wanted):
                break
            if begin.is_smooth and len(tried) == 1:
                break
        else:
            low = min(i + 1, high)
        # halved where lines do not help, as with grain that is there or not
        i = guess.place(ABOVE) if len(tried) < LINES else (low + high) // 2
        i = min(max(i, low), high - (high in tried and high > low))
    if guess.is_smooth and high < faithful:
        high = faithful
        if high not in tried:
            tried[high] = encode(scale.qualities[high])
    made, ssim = tried[high]
    return Found(made, scale.qualities[high], ssim, len(tried))
