"""One piece of work: its widths, heights, densities, formats and names."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Literal

from pydantic import Field, field_validator, model_validator

from skypane.errors import written
from skypane.model.audience import USUAL_AUDIENCE, Audience, Takes
from skypane.model.colours import USUAL_COLOURS, PageColours
from skypane.model.condition import Feature
from skypane.model.files import MOST_RUNGS, TARGETS, Formats, Likeness, Lists
from skypane.model.frame import Letter, NamedFrame
from skypane.model.hand_over import HandOver
from skypane.model.spoken import Language, Spoken
from skypane.model.words import HeadingLevel
from skypane.values import GREATEST_VIEWPORT, LEAST_VIEWPORT, Noun, Px

MediaStyle = Literal["max-width", "min-width", "range"]

MOST_BREAKPOINTS = 12
MOST_DENSITIES = 8
MOST_HEIGHTS = 24
MOST_FRAMES = 60


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


#: What stands before a part of a file name.
Lead = Annotated[
    str,
    written(r"^[a-z0-9._@-]{1,8}$", "Use up to 8 small letters, digits and . _ @ -, no spaces."),
]


#: What a file name is made of, besides its extension.
NamePart = Literal["name", "span", "size"]


class Naming(Noun):
    """The parts of a file name in their order, the lead before each but the first, and the folder
    that the file lies in (rules §13; the defaults are common practice)."""

    parts: Annotated[tuple[NamePart, ...], Field(min_length=3, max_length=3)] = (
        "name",
        "span",
        "size",
    )
    folder: Literal["none", "page", "placement"] = "none"

    span_lead: Lead = "--"
    density_lead: Lead = "@"
    width_lead: Lead = "@"

    @field_validator("parts")
    @classmethod
    def _each_once(cls, parts: tuple[NamePart, ...]) -> tuple[NamePart, ...]:
        if set(parts) != {"name", "span", "size"}:
            raise ValueError("A file name has a name, a span and a size, each once.")
        return parts


#: The typefaces that ship with Sky Pane; `skypane.words.faces` has their files.
Typeface = Literal["Instrument Sans", "Newsreader"]

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
    formats: Formats = ("avif", "webp", "jpeg")
    densities: Annotated[
        tuple[Annotated[float, Field(ge=1, le=4)], ...], Field(max_length=MOST_DENSITIES)
    ] = (1, 2)
    heights: Annotated[tuple[HeightRange, ...], Field(min_length=1, max_length=MOST_HEIGHTS)] = (
        USUAL_HEIGHTS
    )
    container: Container = Container()
    frames: Annotated[tuple[NamedFrame, ...], Field(max_length=MOST_FRAMES)] = ()
    lists: Lists = "fitting"
    # a ladder has the fewest widths whose waste is at most this, but no more than `most_files`
    waste_percent: Annotated[float, Field(ge=0, le=1000)] = 10
    most_files: Annotated[int, Field(ge=1, le=MOST_RUNGS)] = 6
    audience: Audience = USUAL_AUDIENCE
    takes: Takes = Takes()
    naming: Naming = Naming()
    hand_over: HandOver = HandOver()
    colours: PageColours = USUAL_COLOURS
    colours_dark: PageColours | None = None  # in a dark colour scheme; None: the usual ones
    typeface: Typeface = "Instrument Sans"  # of words on pictures
    heading_level: HeadingLevel = 2  # of headings, where their placement says none of its own
    language: Language = "en"  # of its pages
    spoken: Spoken = Spoken()
    likeness: Likeness = TARGETS["standard"]
    budget_bytes: Annotated[int, Field(ge=1000, le=10**12)] = 150_000

    @field_validator("breakpoints")
    @classmethod
    def _breakpoints(cls, breakpoints: tuple[int, ...]) -> tuple[int, ...]:
        """In whichever order they are named, spans grow."""
        return tuple(sorted(breakpoints))

    @field_validator("densities")
    @classmethod
    def _densities(cls, densities: tuple[float, ...]) -> tuple[float, ...]:
        if 1 not in densities:
            raise ValueError("1x must stay: plain screens need it.")
        return tuple(sorted(set(densities)))

    @field_validator("frames")
    @classmethod
    def _frames(cls, frames: tuple[NamedFrame, ...]) -> tuple[NamedFrame, ...]:
        for what in ("id", "name"):
            seen: set[str] = set()
            for frame in frames:
                said = getattr(frame, what)
                if said in seen:
                    raise ValueError(f"Two frames are called {said}. Rename one.")
                seen.add(said)
        return frames

    def colours_under(self, features: Iterable[Feature]) -> PageColours:
        """The colours of its pages while some features hold."""
        return (self.colours_dark or self.colours) if "dark" in features else self.colours

    def frame_of(self, id: str) -> NamedFrame | None:
        return next((f for f in self.frames if f.id == id), None)

    @model_validator(mode="after")
    def _breakpoints_in_range(self) -> Site:
        if self.narrowest > self.widest:
            raise ValueError(
                f"The narrowest width ({self.narrowest}) must not be above the widest"
                f" ({self.widest})."
            )
        for before, after in zip(self.breakpoints, self.breakpoints[1:], strict=False):
            if before == after:
                raise ValueError(f"The breakpoint {after} is there twice. Remove one.")
        for b in self.breakpoints:
            if not self.narrowest <= b < self.widest:
                raise ValueError(
                    f"The breakpoint {b} lies outside the site's widths. A breakpoint is the last"
                    f" width of a span: {self.narrowest} to {self.widest - 1}."
                )
        return self
