"""What a reading is made of."""

from __future__ import annotations

from typing import Literal

from skypane.advice.costs import AimCost
from skypane.advice.percents import ByPercents
from skypane.advice.remedies import Advice
from skypane.files.rows import FileRow
from skypane.geometry import Rect
from skypane.model import Finding
from skypane.shown.brief import Brief
from skypane.treatments import Effective
from skypane.values import Noun
from skypane.widths.curves import Curve
from skypane.widths.runs import Run

#: x0, x1, y0, y1 in px of an original.
EdgesPx = tuple[int, int, int, int]


class Band(Noun):
    """How one thing fares at every width. `kind` says what: a keep area, sharpness at a density,
    weight at a density.

    `curve` is of shares in view, of shares of the px needed (of spans that are soft somewhere), or
    of bytes; `needed`, of a sharpness band, of the image px that the frame asks for, before
    rounding up.
    """

    kind: Literal["area", "sharp", "weight"]
    name: str
    density: float | None
    runs: tuple[Run, ...]
    curve: Curve
    needed: Curve | None


class Hold(Noun):
    """A run of widths at which a keep area moves the picture away from where the rest would have
    it."""

    name: str
    first: int
    last: int


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
    """The same with what holds there, and why.

    `origin` says, per field, where its value comes from (see `skypane.treatments.Resolved`), `own`
    which fields the span sets itself. `keeps` are the areas that matter, the first most. Equal
    fingerprints show the same at every width.
    """

    title: str
    effective: Effective
    own: tuple[str, ...]
    origin: dict[str, str]
    viewport_heights: tuple[int, int] | None
    fingerprint: str
    position: str
    held_by: tuple[str, ...]
    holds: tuple[Hold, ...]
    keeps: tuple[str, ...]


class CodeLine(Noun):
    """A line of code and the letters of the spans that it serves (none: all)."""

    text: str
    spans: tuple[str, ...]


class Code(Noun):
    markup: tuple[CodeLine, ...]
    css: tuple[CodeLine, ...]
    sizes: tuple[str, ...]  # per part
    markup_text: str
    css_text: str


class Pane(Noun):
    """What the panes are made of: the delivered CSS for whole originals, and markup that shows
    previews of them."""

    markup: str
    css: str


class ViewportPoint(Noun):
    to_px: int
    typical_px: int


class PxNeed(Noun):
    """How many image px the crop has to be wide for a density, whatever its size, as long as its
    ratio stays."""

    density: float
    width_px: int
    height_px: int


class RatioCrop(Noun):
    """The largest crop of one ratio that holds all areas; `rect` None and the reason in `why_not`
    where they do not fit."""

    name: str
    rect: Rect | None
    why_not: str


class CropFacts(Noun):
    """The crop of a span in image px, beside what its frames need, and crops of usual ratios to
    start from."""

    x: int
    y: int
    width_px: int
    height_px: int
    needs: tuple[PxNeed, ...]
    largest: tuple[RatioCrop, ...]


class SpanDetail(Noun):
    """More about the one span that is being worked on. `aims` and `percents` only where they are
    asked for."""

    letter: str
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


class MovingPart(Noun):
    """What changes of a part while something is dragged. `bands` are those of its keep areas."""

    spans: tuple[MovingSpan, ...]
    bands: tuple[Band, ...]
    safe: tuple[OverallSafe, ...]


class Moving(Noun):
    """What changes on the desk while something is dragged."""

    parts: tuple[MovingPart, ...]
    pane: Pane


class PartReading(MovingPart):
    """A part with all that is told of its spans, and all its bands. `brief` only where a span waits
    for a picture, `detail` of the one span that is being worked on."""

    spans: tuple[SpanReading, ...]
    advice: tuple[Advice, ...]
    brief: Brief | None
    detail: SpanDetail | None


class Reading(Moving):
    """Everything that the desk shows of a placement."""

    narrowest: int
    widest: int
    heights: tuple[ViewportPoint, ...]
    budget_bytes: int
    parts: tuple[PartReading, ...]
    files: tuple[FileRow, ...]
    findings: tuple[Finding, ...]
    code: Code
