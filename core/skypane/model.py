"""The nouns of Sky Pane as frozen values. Django rows store their parts, requests and responses are made of them.

Units: widths and heights of viewports and frames are CSS px; positions and areas on a picture are fractions of its width and
height from the top left; percentages are 0–100 and named so.
"""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, ConfigDict, Field, field_validator, model_validator

from skypane.identifiers import identifier

Format = Literal["avif", "webp", "jpeg", "png"]
MediaStyle = Literal["max-width", "min-width", "range"]
Fit = Literal["cover", "contain"]
Shows = Literal["picture", "colour", "nothing"]
Stands = Literal["start", "centre", "end"]
Fraction = Annotated[float, Field(ge=0, le=1)]
#: Sizes and shares that a page can have; beyond them numbers are slips of the finger, and arithmetic overflows.
MOST_PX = 20000
Px = Annotated[float, Field(ge=0.01, le=MOST_PX)]
Percent = Annotated[float, Field(ge=0.01, le=1000)]
#: A database's key, from 0 (nothing stored yet) to what 64 bits hold.
Id = Annotated[int, Field(ge=0, le=2**63 - 1)]
#: The sides of a ratio, and the flattest and narrowest ratio itself, as width over height.
Side = Annotated[float, Field(ge=0.001, le=10000)]
FLATTEST, NARROWEST = 1000.0, 0.001
#: The smallest part of a picture that can be marked or cut, as a share of a side.
LEAST_SHARE = 1e-4
#: What is this close to a bound is on it: sums of fractions are not exact.
NOISE = 1e-9

#: Bounds of what a viewport can be. Below and above, no screen is known (common practice).
LEAST_VIEWPORT, GREATEST_VIEWPORT = 120, 7680
MOST_BREAKPOINTS = 12
MOST_DENSITIES = 8
MOST_HEIGHTS = 24


class Noun(BaseModel):
    """Base of every value: immutable, and unknown fields are an error rather than silently lost."""

    model_config = ConfigDict(frozen=True, extra="forbid")


def _ordered(noun: BaseModel, low: float | None, high: float | None, what: str) -> None:
    if low is not None and high is not None and low > high:
        raise ValueError(f"The least {what} ({low:g} px) is larger than the greatest ({high:g} px). Swap them or clear one.")


class _Bounded(Noun):
    least_px: Px | None = None
    greatest_px: Px | None = None

    @model_validator(mode="after")
    def _bounds_in_order(self) -> _Bounded:
        _ordered(self, self.least_px, self.greatest_px, "size")
        return self


# -- width rules -------------------------------------------------------------------------------------------------------


class FixedWidth(_Bounded):
    """Always `width_px` CSS px wide."""

    kind: Literal["fixed"] = "fixed"
    width_px: Px


class ShareWidth(_Bounded):
    """`percent` of the holder: the page, or the site's container."""

    kind: Literal["share"] = "share"
    percent: Percent
    of: Literal["page", "container"] = "page"


class FullWidth(_Bounded):
    """From edge to edge of the page."""

    kind: Literal["full"] = "full"


class ColumnsWidth(_Bounded):
    """`take` of `columns` columns of the holder with `gutter_px` between them."""

    kind: Literal["columns"] = "columns"
    columns: Annotated[int, Field(ge=1, le=24)]
    take: Annotated[int, Field(ge=1, le=24)] = 1
    gutter_px: Annotated[float, Field(ge=0, le=1000)] = 0
    of: Literal["page", "container"] = "container"

    @model_validator(mode="after")
    def _take_at_most_all(self) -> ColumnsWidth:
        if self.take > self.columns:
            raise ValueError(f"{self.take} of {self.columns} columns cannot be taken. Take at most {self.columns}.")
        return self


WidthRule = Annotated[FixedWidth | ShareWidth | FullWidth | ColumnsWidth, Field(discriminator="kind")]


# -- height rules ------------------------------------------------------------------------------------------------------


class RatioHeight(_Bounded):
    """`w`:`h` of the frame's width. Besides px it can be bounded by shares of the viewport's height, as CSS can with `vh`."""

    kind: Literal["ratio"] = "ratio"
    w: Side
    h: Side
    least_vh: Percent | None = None
    greatest_vh: Percent | None = None

    @model_validator(mode="after")
    def _can_be_drawn(self) -> RatioHeight:
        if not NARROWEST <= self.w / self.h <= FLATTEST:
            raise ValueError(f"A ratio of {self.w:g}:{self.h:g} is no frame. Stay between 1:1000 and 1000:1.")
        low, high = self.least_vh, self.greatest_vh
        if low is not None and high is not None and low > high:
            raise ValueError(f"The least height ({low:g} % of the viewport) is above the greatest ({high:g} %). Swap them.")
        return self


class FixedHeight(_Bounded):
    """Always `height_px` CSS px high."""

    kind: Literal["fixed"] = "fixed"
    height_px: Px


class ViewportHeight(_Bounded):
    """`percent` of the viewport's height (CSS vh)."""

    kind: Literal["vh"] = "vh"
    percent: Percent


class NaturalHeight(_Bounded):
    """The ratio of the crop itself: nothing is cut unless a least or greatest height says so."""

    kind: Literal["natural"] = "natural"


HeightRule = Annotated[RatioHeight | FixedHeight | ViewportHeight | NaturalHeight, Field(discriminator="kind")]


# -- aim ---------------------------------------------------------------------------------------------------------------


class Following(Noun):
    """The window stays nearest to the focal point; with `areas` the keep areas come first."""

    kind: Literal["following"] = "following"
    areas: bool = True


class FixedAim(Noun):
    """CSS object-position as two fixed percentages, here as fractions."""

    kind: Literal["fixed"] = "fixed"
    x: Fraction = 0.5
    y: Fraction = 0.5


Aim = Annotated[Following | FixedAim, Field(discriminator="kind")]


class Rect(Noun):
    """A rectangle in fractions of a picture, x and y the top left corner."""

    x: Fraction
    y: Fraction
    w: Annotated[float, Field(ge=LEAST_SHARE, le=1)]
    h: Annotated[float, Field(ge=LEAST_SHARE, le=1)]

    @model_validator(mode="before")
    @classmethod
    def _without_noise(cls, values: object) -> object:
        """What is beyond a bound by no more than arithmetic's own error is on the bound: 1.0000000000000002 is 1."""
        if not isinstance(values, dict):
            return values
        return {
            name: min(1.0, max(0.0, value)) if isinstance(value, float) and -NOISE <= value <= 1 + NOISE else value
            for name, value in values.items()
        }

    @model_validator(mode="after")
    def _inside(self) -> Rect:
        if self.x + self.w > 1 + 1e-6 or self.y + self.h > 1 + 1e-6:
            raise ValueError("The rectangle reaches beyond the picture. Move or shrink it.")
        return self


AreaName = Annotated[str, Field(min_length=1, max_length=80)]
MOST_AREAS = 40
MOST_WORDS = 1000
#: A side of a picture in image px. No camera, and no format that browsers show, goes further.
ImagePx = Annotated[int, Field(ge=1, le=100_000)]


class Area(Noun):
    """A keep area (must stay in view) or a quiet area (words may lie there). The order in the list is its importance."""

    name: AreaName
    rect: Rect
    kind: Literal["keep", "quiet"] = "keep"
    least_px: Px | None = None  # the width in CSS px that it has to be shown at (a face, lettering)
    lettering: bool = False  # words that are part of the picture: the alt text has to say them (WCAG 2.2, 1.1.1 and 1.4.5)


class Original(Noun):
    """A picture as it was brought in. Pixel sizes are after its orientation has been applied."""

    id: Id
    name: Annotated[str, Field(min_length=1, max_length=200)]
    width_px: ImagePx
    height_px: ImagePx
    size_bytes: Annotated[int, Field(ge=0, le=2**53)] = 0
    sha256: Annotated[str, Field(max_length=64)] = ""
    alpha: bool = False
    alt: Annotated[str, Field(max_length=MOST_WORDS)] | None = None  # None: nobody has said yet; "": decorative on purpose
    focal: tuple[Fraction, Fraction] = (0.5, 0.5)
    areas: Annotated[tuple[Area, ...], Field(max_length=MOST_AREAS)] = ()
    tags: Annotated[tuple[Annotated[str, Field(max_length=40)], ...], Field(max_length=20)] = ()

    @property
    def keeps(self) -> tuple[Area, ...]:
        return tuple(a for a in self.areas if a.kind == "keep")


# -- treatments and placements -----------------------------------------------------------------------------------------


class Treatment(Noun):
    """What a placement does within one span. `None` means: handed down from the next wider span.

    `crop` and `keeps` speak of one original: they are handed down only as far as that original is.
    """

    width: WidthRule | None = None
    height: HeightRule | None = None
    show: Shows | None = None  # the picture, only the colour of the frame, or no frame at all
    original: Id | None = None
    crop: Rect | None = None  # cut from the original before anything else; all of it says: no crop
    keeps: Annotated[tuple[AreaName, ...], Field(max_length=MOST_AREAS)] | None = (
        None  # which keep areas matter, the first most
    )
    stands: Stands | None = None  # where a frame narrower than its holder is
    fit: Fit | None = None
    aim: Aim | None = None
    whole: bool | None = None  # deliver the whole picture instead of cutting it to what shows
    background: Annotated[str, Field(pattern=r"^#[0-9a-fA-F]{6}$")] | None = None


#: The letter of a span: A is the narrowest.
Letter = Annotated[str, Field(pattern=r"^[A-Z]$")]


class Placement(Noun):
    """One spot on a page. `treatments` holds, per letter of a span, what that span sets itself."""

    name: Annotated[str, Field(min_length=1, max_length=80)]
    alt: Annotated[str, Field(max_length=MOST_WORDS)] | None = None  # overrides the original's alt text
    lead: bool = True  # whether the first screen shows it: loads at once, not lazily
    treatments: dict[Letter, Treatment] = Field(default_factory=dict)
    stem: Annotated[str, Field(pattern=r"^[a-z][a-z0-9-]{0,79}$")] | None = None  # see `skypane.names.stems`

    @property
    def called(self) -> str:
        """What class and files are called: `stem` where other placements of the site had to be looked at, else by the name."""
        return self.stem or identifier(self.name)

    @property
    def original_ids(self) -> set[int]:
        """The originals that some span sets itself."""
        return {t.original for t in self.treatments.values() if t.original is not None}


# -- site --------------------------------------------------------------------------------------------------------------


class HeightRange(Noun):
    """Which viewport heights occur at viewport widths up to `to_px`."""

    to_px: Annotated[int, Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)]
    least_px: Annotated[int, Field(ge=200, le=6000)]
    typical_px: Annotated[int, Field(ge=200, le=6000)]
    greatest_px: Annotated[int, Field(ge=200, le=6000)]

    @model_validator(mode="after")
    def _in_order(self) -> HeightRange:
        if not self.least_px <= self.typical_px <= self.greatest_px:
            raise ValueError("Viewport heights must grow from least over typical to greatest.")
        return self


class Container(Noun):
    """C(v) = min(max_width, v − 2·margin): the column that holds a page's content."""

    max_width_px: Px = 1080
    margin_px: Annotated[float, Field(ge=0, le=1000)] = 20


class Naming(Noun):
    """Leads of the parts of a file name (02-rules §13; the defaults are common practice)."""

    span_lead: Annotated[str, Field(pattern=r"^[a-z0-9._@-]{1,8}$")] = "--"
    density_lead: Annotated[str, Field(pattern=r"^[a-z0-9._@-]{1,8}$")] = "@"


class Quality(Noun):
    """Encoder qualities, 1–100 in each encoder's own scale. The defaults look alike to the eye (common practice)."""

    avif: Annotated[int, Field(ge=1, le=100)] = 58
    webp: Annotated[int, Field(ge=1, le=100)] = 78
    jpeg: Annotated[int, Field(ge=1, le=100)] = 80


#: Heights seen per width of screen: phones, tablets, laptops, desktop screens (common practice).
USUAL_HEIGHTS = (
    HeightRange(to_px=599, least_px=560, typical_px=640, greatest_px=932),
    HeightRange(to_px=1023, least_px=600, typical_px=1024, greatest_px=1366),
    HeightRange(to_px=1599, least_px=600, typical_px=800, greatest_px=1200),
    HeightRange(to_px=GREATEST_VIEWPORT, least_px=720, typical_px=1080, greatest_px=1440),
)


class Site(Noun):
    """One piece of work: its widths, export rules and habits."""

    narrowest: Annotated[int, Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)] = 320
    widest: Annotated[int, Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)] = 2560
    breakpoints: Annotated[tuple[int, ...], Field(max_length=MOST_BREAKPOINTS)] = (599, 1023, 1599)
    titles: dict[Letter, Annotated[str, Field(max_length=40)]] = Field(default_factory=dict)
    media_style: MediaStyle = "max-width"
    formats: Annotated[tuple[Format, ...], Field(max_length=8)] = ("avif", "webp", "jpeg")
    densities: Annotated[tuple[Annotated[float, Field(ge=1, le=4)], ...], Field(max_length=MOST_DENSITIES)] = (1, 2)
    heights: Annotated[tuple[HeightRange, ...], Field(min_length=1, max_length=MOST_HEIGHTS)] = USUAL_HEIGHTS
    container: Container = Container()
    naming: Naming = Naming()
    quality: Quality = Quality()
    budget_bytes: Annotated[int, Field(ge=1000, le=10**12)] = 150_000

    @field_validator("formats")
    @classmethod
    def _formats(cls, formats: tuple[Format, ...]) -> tuple[Format, ...]:
        order: tuple[Format, ...] = ("avif", "webp", "jpeg")  # most modern first: a browser takes the first type it knows
        if "jpeg" not in formats:
            raise ValueError("JPEG must stay: it is the file for browsers that know no newer format.")
        return tuple(f for f in order if f in formats)

    @field_validator("densities")
    @classmethod
    def _densities(cls, densities: tuple[float, ...]) -> tuple[float, ...]:
        if 1 not in densities:
            raise ValueError("1x must stay: plain screens need it.")
        return tuple(sorted(set(densities)))

    @model_validator(mode="after")
    def _breakpoints_in_range(self) -> Site:
        if self.narrowest > self.widest:
            raise ValueError(f"The narrowest width ({self.narrowest}) must not be above the widest ({self.widest}).")
        for before, after in zip(self.breakpoints, self.breakpoints[1:], strict=False):
            if before == after:
                raise ValueError(f"The breakpoint {after} is there twice. Remove one.")
            if before > after:
                raise ValueError(f"Breakpoints must grow, but {after} follows {before}. Put them in order.")
        for b in self.breakpoints:
            if not self.narrowest <= b < self.widest:
                raise ValueError(
                    f"The breakpoint {b} lies outside the site's widths. "
                    f"A breakpoint is the last width of a span: {self.narrowest} to {self.widest - 1}."
                )
        return self


# -- what is to be made ------------------------------------------------------------------------------------------------


class Crop(Noun):
    """A rectangle of an original in whole image px."""

    x: Annotated[int, Field(ge=0)]
    y: Annotated[int, Field(ge=0)]
    w: Annotated[int, Field(gt=0)]
    h: Annotated[int, Field(gt=0)]


class Rendition(Noun):
    """One file to export: a crop of an original at one pixel size, in one format.

    `needed_px` is the width that the frame asks for at this density; where `width_px` is less, the file is soft.
    """

    original: int
    crop: Crop
    width_px: int
    height_px: int
    format: Format
    density: float
    quality: int
    spans: tuple[str, ...]
    name: str
    needed_px: int
    key: str  # hash of all that makes the file

    @property
    def share(self) -> float:
        """Pixels that are there over pixels that are needed; below 1 the file is soft."""
        return self.width_px / self.needed_px
