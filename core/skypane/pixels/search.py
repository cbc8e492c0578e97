"""The coarsest quality whose likeness reaches a target, in few encodes (rules §10).

−ln(1 − SSIM) grows nearly as a straight line with −ln of the step that an encoder quantises with
(measured on the demo's photographs), so that one encode and the slope tell where the target is met.
JPEGs of a sample of the picture tell roughly how fine it has to be, in any encoder's scale; then
the encoder's own files of the sample tell where to begin. What is found follows from the picture
alone, whatever was made before it, so that the same picture is the same file in every run.
"""

from __future__ import annotations

import math
from bisect import bisect_left
from collections.abc import Callable
from dataclasses import dataclass
from typing import Generic, NamedTuple, TypeVar

Made = TypeVar("Made")

#: By so much `linear` may lie above the target when the search ends, the more the more was tried:
#: what a better file would save in bytes, a few in a hundred at most, is not worth another encode.
NEAR = 0.07
#: By so much a guess is put above the target, so that it seldom falls short of it.
ABOVE = 0.2 * NEAR
#: And by so much where a sample says it, about as much as samples differ from the whole.
SAMPLE_ABOVE = 0.03
#: A sample is looked at no more often than this, and no more once it is so near to the target.
SAMPLED, SAMPLED_NEAR = 3, 0.1
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
    `faithful`, the quality from which on smooth surfaces keep their colour.

    `rough`: where a JPEG meets a target at a fineness x, this encoder does at about a + b · x
    (a, b)."""

    qualities: range
    fine: Callable[[int], float]
    begin: int
    slope: float
    faithful: int
    rough: tuple[float, float] | None = None

    def fine_at(self, place: int) -> float:
        return self.fine(self.qualities[place])

    def place_of(self, fine: float) -> int:
        """The first place that is at least so fine, or the last."""
        at = bisect_left(self.qualities, fine - 1e-9, key=self.fine)
        return min(at, len(self.qualities) - 1)

    def place_roughly(self, jpeg: float) -> int:
        """About the place that is as good as a JPEG so fine."""
        if self.rough is None:
            return self.qualities.index(self.begin)
        base, rise = self.rough
        return self.place_of(base + rise * jpeg)


@dataclass(frozen=True)
class Reached(Generic[Made]):
    """What was made at a quality that reaches the target, or at the finest there is."""

    made: Made
    quality: int
    ssim: float
    encodes: int


class Begin(NamedTuple):
    """Where on the scale to begin, and whether the picture is known to be smooth. `samples`: how
    many tries that took."""

    place: int
    is_smooth: bool = False
    samples: int = 0


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

    def fine(self, above: float = 0.0) -> float:
        """How fine it has to be to reach the target, and `above` more."""
        fine, known, slope = self._line()
        return fine + (self.wanted + above - known) / slope

    def place(self, above: float = 0.0) -> int:
        """The first place on the scale that is expected to do so."""
        if not self.known:
            return self.scale.qualities.index(self.scale.begin)
        return self.scale.place_of(self.fine(above))

    def try_samples(self, sampled: Callable[[int], float], first: int | None = None) -> None:
        """Get near to the target by samples, whose SSIM at a quality `sampled` says."""
        i = self.place() if first is None else first
        for _ in range(SAMPLED):
            self.known[i] = linear(sampled(self.scale.qualities[i]))
            if abs(self.known[i] - self.wanted) < SAMPLED_NEAR:
                break
            i = self.place()
            if i in self.known:
                break

    @property
    def begin(self) -> Begin:
        """Where to begin with the whole, of which samples were tried."""
        if self.is_smooth:
            return Begin(self.scale.qualities.index(self.scale.faithful), True, len(self.known))
        return Begin(self.place(SAMPLE_ABOVE), False, len(self.known))


def coarsest(
    scale: Scale,
    target: float,
    encode: Callable[[int], tuple[Made, float]],
    begin: Begin | None = None,
) -> Reached[Made]:
    """Find it. `encode` makes one file at a quality and says its SSIM. The more was tried, the
    farther above the target the search may end, by twice `NEAR` at first.

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
            near = here - guess.wanted < NEAR * max(2, len(tried))
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
    return Reached(made, scale.qualities[high], ssim, len(tried))
