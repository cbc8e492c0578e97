"""What a reading is made of."""

from __future__ import annotations

from typing import Literal, NamedTuple

from pydantic import JsonValue

from skypane.advice.costs import AimCost
from skypane.advice.percents import ByPercents
from skypane.advice.remedies import Advice
from skypane.advice.words import WordsDetail
from skypane.files.kept import Saving
from skypane.files.rows import FileRow
from skypane.geometry import Rect
from skypane.layouts.layout import Nothing
from skypane.model import (
    BannerValues,
    BesideValues,
    Finding,
    GridValues,
    HeightRule,
    LogoValues,
    SlidesValues,
)
from skypane.shown.brief import Brief
from skypane.treatments import Effective
from skypane.values import Noun
from skypane.widths.curves import Curve
from skypane.widths.runs import Run
from skypane.words.block import TextKind

#: x0, x1, y0, y1 in px of an original.
EdgesPx = tuple[int, int, int, int]


class Band(Noun):
    """How one thing fares at every width. `kind` says what: a keep area, sharpness at a density,
    weight at a density, the width of the frame, the keep areas of all items together; of words:
    whether a text can be read, whether they lie clear of keep areas, whether they fit; whether just
    one of a set shows; whether the lettering of a logo can be read, its height as a share of the
    least.

    `curve` is of shares in view, of shares of the px needed (of spans that are soft somewhere), of
    bytes, of CSS px, or of contrast ratios; `peak` is the narrowest width at which a frame is
    widest, and how wide.
    `needed` is, of a sharpness band, of the image px that the frame asks for, before rounding up;
    of a text's, of the contrast that it needs.
    """

    kind: Literal[
        "area",
        "sharp",
        "weight",
        "frame",
        "readable",
        "clear",
        "fits",
        "one",
        "together",
        "lettering",
    ]
    name: str
    density: float | None
    runs: tuple[Run, ...]
    curve: Curve
    needed: Curve | None
    peak: tuple[int, float] | None = None


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


class Rung(Noun):
    """One width of a ladder. `share` of the group's audience takes it; `size_bytes` is what its
    files weigh on average over the formats that the audience takes, None where one is not made
    yet."""

    width_px: int
    share: float
    size_bytes: int | None


class TakenRun(Noun):
    """Consecutive viewport widths at which screens of one density take one rung."""

    first: int
    last: int
    width_px: int


class TakenAt(Noun):
    density: float
    runs: tuple[TakenRun, ...]


class Tradeoff(Noun):
    """The best ladder of a number of files, and its waste as a share of the exact need."""

    files: int
    widths: tuple[int, ...]
    waste: float


class LadderReading(Noun):
    """The ladder of one group of spans, and what other numbers of files would come to. `letter` is
    the widest of its spans; `top_px` the width that it always has.

    `is_own`: the designer's own widths. `waste` and `curve` rest on the usual growth of bytes,
    `measured` on that of the files that are made (None before), whose exponent is `exponent`;
    `fitted` are then the best widths for as many files.
    """

    part: int
    letter: str
    spans: tuple[str, ...]
    crop_px: int
    top_px: int
    is_own: bool
    rungs: tuple[Rung, ...]
    waste: float
    curve: tuple[Tradeoff, ...]
    measured: float | None
    exponent: float | None
    fitted: tuple[int, ...] | None
    taken: tuple[TakenAt, ...]


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
    fingerprints show the same at every width. `sums` tell how the frame's width comes about at both
    ends of the span and where it peaks in between; `row` how percentage columns add up.
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
    sums: tuple[WidthSum, ...]
    row: str | None


class CodeLine(Noun):
    """A line of code and the letters of the spans that it serves (none: all)."""

    text: str
    spans: tuple[str, ...]


class Code(Noun):
    markup: tuple[CodeLine, ...]
    css: tuple[CodeLine, ...]
    sizes: dict[int, str]  # by part, of its drawn width
    markup_text: str
    css_text: str
    script: Script | None = None


class Script(Noun):
    """A script that goes with the markup; `tag` asks for it once in a page."""

    name: str
    tag: str
    text: str


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
    """What changes of a part while something is dragged. `bands` are those of its keep areas and of
    its frame."""

    spans: tuple[MovingSpan, ...]
    bands: tuple[Band, ...]
    safe: tuple[OverallSafe, ...]


class LinesRun(Noun):
    """Consecutive widths at which a text has so many lines."""

    first: int
    last: int
    lines: int


class WordsText(Noun):
    """One text in one span: its content box in CSS px from the banner's top left corner at the
    typical viewport height, its lines, the contrast that it needs, and what it has on the
    background colour alone. `broken`: some word is too long for a line and is broken in two."""

    kind: TextKind
    name: str
    size_px: float
    large: bool
    needed: float
    x: Curve
    y: Curve
    w: Curve
    h: Curve
    lines: tuple[LinesRun, ...]
    before_loading: float
    broken: bool


class BoxCurves(Noun):
    """A box in CSS px from the banner's top left corner, at the typical viewport height."""

    x: Curve
    y: Curve
    w: Curve
    h: Curve


class WordsSpan(Noun):
    """The words of a banner in one span: the values that hold, which the span sets itself, and the
    letter of the span that each is from ("" for a default).

    `banner` is its box, its x from the page's edge; `area` the picture's place in it, `block` that
    of the words, None where none show. `covers` are the keep areas that they lie on somewhere.
    """

    letter: str
    values: BannerValues
    own: tuple[str, ...]
    origin: dict[str, str]
    area: BoxCurves
    banner: BoxCurves
    block: BoxCurves | None
    texts: tuple[WordsText, ...]
    covers: tuple[str, ...]


class WordsReading(Noun):
    """The words of a banner, over every width. `measured`: whether the px of its pictures were to
    be had. `unset` are characters that the typeface has no glyph for, whose width is a guess.
    `detail` is of the one span that is being worked on."""

    spans: tuple[WordsSpan, ...]
    bands: tuple[Band, ...]
    measured: bool
    unset: tuple[str, ...]
    detail: WordsDetail | None


class ItemReading(Noun):
    """One picture of many: what it shows in the widest span that shows it, and how many findings it
    has."""

    original: int | None
    name: str
    findings: int


class FailingItems(Noun):
    """Consecutive widths at which some items of the `of` that show fail, by their parts."""

    first: int
    last: int
    parts: tuple[int, ...]
    of: int


class CommonRatioReading(Noun):
    """The one ratio of cells that loses least in a span: the mean `loss` as a share, and the items
    whose keep areas do not fit. `unlike` are those whose own ratio is not `most`, the one that most
    have; `crops` the largest crop of the one ratio that holds each item's areas, None where none
    does. `gentle`: it costs so little that it comes before showing whole what is cut. `heights` is
    what is said for all parts to have it: the ratio, and for the next narrower span what it has
    now."""

    letter: str
    ratio: float
    loss: float
    cuts: tuple[int, ...]
    most: float
    unlike: tuple[int, ...]
    crops: dict[int, Rect | None]
    gentle: bool
    heights: dict[str, HeightRule]


class Sharpest(NamedTuple):
    """The greatest width of the box, in CSS px, at which no item is soft at `density`, and the item
    that decides; its own px."""

    width_px: float
    density: float
    part: int
    own_px: int


class ItemsReading(Noun):
    """Many pictures of one spot at a glance. `together` has the worst fate of all their keep areas,
    its shares are of items that are whole; `failing` says who is not. `ratio` and `sharpest` are of
    the one span that is being worked on; `largest` says which spans need how many px of the chosen
    item; `weight` is of all of them, where their files are read, and `budget_bytes` what they may
    weigh together. `crop_ratios`: those that all can be cropped to, width over height."""

    items: tuple[ItemReading, ...]
    one: str  # what each is called
    together: Band
    failing: tuple[FailingItems, ...]
    ratio: CommonRatioReading | None
    sharpest: Sharpest | None
    largest: str
    weight: Band | None = None
    budget_bytes: int
    crop_ratios: dict[str, float]


class CutRun(NamedTuple):
    """Consecutive widths that call for one cut of a logo, by its place."""

    first: int
    last: int
    cut: int


class CutReading(Noun):
    """One cut of a logo: the width in CSS px from which it can be read, the viewport widths that
    call for it, and whether some span shows it in portrait."""

    original: int
    lettering_percent: float | None
    least_px: float
    shows: tuple[tuple[int, int], ...]
    in_portrait: bool


class LogoReading(Noun):
    """The cuts of a logo. `called_for` says which cut every width calls for, `breaks` the
    breakpoints that the site lacks for that, `spans` the fullest cut that can be read all over each
    span, `wants` those of spans that show another one. `edges` are the colours that cuts have all
    along their edge, by original. `portrait` says at which widths the typical viewport is at least
    as high as it is wide."""

    cuts: tuple[CutReading, ...]
    called_for: tuple[CutRun, ...]
    breaks: tuple[int, ...]
    spans: dict[str, int]
    wants: dict[str, int]
    edges: dict[int, str]
    portrait: tuple[tuple[int, int], ...]
    band: Band | None


class Moving(Noun):
    """What changes on the desk while something is dragged. `parts` by their index: all of them, or
    of many items the one that is being worked on. `words` only where they belong to the kind,
    `items` only where it has many, `one_of` only where the placement is one of a set."""

    parts: dict[int, MovingPart]
    words: WordsReading | None = None
    items: ItemsReading | None = None
    logo: LogoReading | None = None
    one_of: Band | None = None
    pane: Pane


class PartReading(MovingPart):
    """A part with all that is told of its spans, and all its bands. `brief` only where a span waits
    for a picture, `detail` of the one span that is being worked on. `place`: which of the pictures
    of the delivered markup shows it."""

    place: int
    spans: tuple[SpanReading, ...]
    advice: tuple[Advice, ...]
    brief: Brief | None
    detail: SpanDetail | None


class LayoutSpan(Noun):
    """The values of the kind itself in one span, and the letter of the span that each is from, ""
    for a default. `told` is what it has to say beside them."""

    letter: str
    told: tuple[str, ...]
    values: (
        BannerValues
        | GridValues
        | SlidesValues
        | BesideValues
        | LogoValues
        | Nothing
        | dict[str, JsonValue]
    )
    origin: dict[str, str]


class Reading(Moving):
    """Everything that the desk shows of a placement. `value_names` says what each value of its kind
    is called, by its field."""

    narrowest: int
    widest: int
    heights: tuple[ViewportPoint, ...]
    budget_bytes: int
    parts: dict[int, PartReading]  # type: ignore[assignment]  # each tells more than in Moving
    files: tuple[FileRow, ...]
    ladders: tuple[LadderReading, ...]
    savings: tuple[Saving, ...]
    layout: tuple[LayoutSpan, ...]
    value_names: dict[str, str]
    findings: tuple[Finding, ...]
    code: Code


class OnPage(Noun):
    """A placement of a page: the letters of the spans in which it shows, or why it cannot be
    computed."""

    name: str
    kind: str
    shows: tuple[str, ...]
    error: str | None


class PageSpan(Noun):
    """What holds for a page in one span; `own` are the fields that it sets itself, `order` places
    in the page's placements, `read_otherwise` whether they are read out in another one."""

    letter: str
    title: str
    first: int
    last: int
    head_px: float
    head_over: bool
    order: tuple[int, ...]
    read_otherwise: bool
    own: tuple[str, ...]


class PageOverflow(Noun):
    """Widths at which a placement is wider than the page: `by_px` CSS px at the worst of them."""

    placement: int
    first: int
    last: int
    by_px: float
    at: int


class PageReading(Noun):
    """Everything that is shown of a whole page. `bands`: whether it fits the width of the screen,
    what its pictures weigh, and those that load at once; `budget_bytes` is that of one picture for
    each of them. `moves`: slides are among it, and the script that goes with them runs."""

    narrowest: int
    widest: int
    heights: tuple[ViewportPoint, ...]
    budget_bytes: int
    spans: tuple[PageSpan, ...]
    placements: tuple[OnPage, ...]
    overflows: tuple[PageOverflow, ...]
    bands: tuple[Band, ...]
    pane: Pane
    moves: bool
