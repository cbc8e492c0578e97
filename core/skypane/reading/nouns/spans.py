"""One part in one span: what is told while it moves, and once it rests."""

from __future__ import annotations

from skypane.advice.costs import AimCost
from skypane.advice.percents import ByPercents
from skypane.geometry import Rect
from skypane.handing_down import Origin
from skypane.reading.nouns.bands import EdgesPx
from skypane.shown.together import Together
from skypane.treatments import Effective
from skypane.values import Noun
from skypane.widths.curves import Curve


class Hold(Noun):
    """A run of widths at which a keep area moves the picture away from where the rest would have
    it."""

    name: str
    first: int
    last: int


class WidthSum(Noun):
    """How a frame's width comes about at one viewport width, as a sum."""

    at: int
    text: str


class MovingSpan(Noun):
    """How a part shows in one span. Curves are taken at the typical viewport height; what is None
    is so where no picture shows."""

    letter: str
    first: int
    last: int
    frame_w: Curve
    frame_h: Curve
    frame_text: str
    drawn_w: Curve | None
    x0: Curve | None
    x1: Curve | None
    y0: Curve | None
    y1: Curve | None
    outline: Rect | None
    safe: Rect | None
    safe_px: EdgesPx | None


class SpanReading(MovingSpan):
    """All that is told of one part in one span: where its picture lies, what holds there, and why.

    `origin` says, per field, where its value is set, unless it is a default, `own`
    which fields the span sets itself. `keeps` are the areas that matter, the first most. Equal
    fingerprints show the same at every width. `sums` tell how the frame's width comes about at both
    ends of the span and where it peaks in between; `row` how percentage columns add up. `is_usual`:
    of a variant, that the part in whose place it stands shows.
    """

    title: str
    effective: Effective
    own: tuple[str, ...]
    origin: dict[str, Origin]
    viewport_heights: tuple[int, int] | None
    fingerprint: str
    is_usual: bool
    position: str
    held_by: tuple[str, ...]
    holds: tuple[Hold, ...]
    keeps: tuple[str, ...]
    sums: tuple[WidthSum, ...]
    row: str | None


class PxNeed(Noun):
    """How many image px the crop has to be wide for a density, whatever its size, as long as its
    ratio stays; and how wide it can be drawn sharply there as it is, in CSS px."""

    density: float
    width_px: int
    height_px: int
    sharp_to_px: int


class CropStop(Noun):
    """The least image px of a crop that is still sharp at `density`."""

    density: float
    width_px: int
    height_px: int


class RatioCrop(Noun):
    """The largest crop of one ratio that holds all areas; `rect` None and the reason in `why_not`
    where they do not fit."""

    name: str
    rect: Rect | None
    why_not: str


class HeldRatio(Noun):
    """The ratio of a span's frames, width over height, the middle of them where they differ, and
    how small a crop of that ratio may be."""

    ratio: float
    is_one: bool
    stop: CropStop


class CropFacts(Noun):
    """The crop of a span in image px, beside what its frames need, and crops of usual ratios to
    start from. `stop` is how small it may be as long as its ratio stays; `held` the ratio that a
    new crop is held to, None where no crop can have it."""

    x: int
    y: int
    width_px: int
    height_px: int
    needs: tuple[PxNeed, ...]
    stop: CropStop
    held: HeldRatio | None
    largest: tuple[RatioCrop, ...]


class SpanDetail(Noun):
    """More about the one span that is being worked on. `aims` and `percents` only where they are
    asked for. `together` says how many of its keep areas fit, None without areas."""

    letter: str
    together: Together | None
    aims: tuple[AimCost, ...]
    percents: ByPercents | None
    crop: CropFacts | None


class OverallSafe(Noun):
    """What of an original is in view at every width of all the spans that show it; `safe` None
    where nothing is."""

    original: int
    spans: tuple[str, ...]
    safe: Rect | None
    safe_px: EdgesPx | None
