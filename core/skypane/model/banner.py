"""What a banner does in one span beside showing its picture: where its words, its mark and its
inset stand, and what lies between words and picture."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Literal, get_args

from pydantic import Field, field_validator

from skypane.model.treatment import Colour
from skypane.values import Fraction, Noun

#: The nine places, row by row; `start` is the left where one reads from left to right.
Place = Literal[
    "top-start",
    "top",
    "top-end",
    "start",
    "middle",
    "end",
    "bottom-start",
    "bottom",
    "bottom-end",
]
PLACES: tuple[Place, ...] = get_args(Place)
Align = Literal["start", "centre", "end"]
#: Where the words are: on the picture, in a row of their own below or above it, in a column beside
#: it, or off.
WordsShow = Literal["on", "below", "above", "beside", "off"]
TypePx = Annotated[float, Field(ge=8, le=400)]
InsetPx = Annotated[float, Field(ge=16, le=2000)]
MOST_STOPS = 8


class Stop(Noun):
    """A colour stop of a gradient (CSS Images 3 §3.4). `at` is a percentage of the gradient
    line."""

    colour: Colour = "#000000"
    alpha: Fraction = 1
    at: Annotated[float, Field(ge=0, le=100)]


class NoScrim(Noun):
    kind: Literal["none"] = "none"


class PlainScrim(Noun):
    """One colour over the whole picture."""

    kind: Literal["plain"] = "plain"
    colour: Colour = "#000000"


class LinearScrim(Noun):
    """A gradient over the picture; `angle` in degrees as CSS has it: 0 to the top, 90 to the
    right."""

    kind: Literal["linear"] = "linear"
    angle: Annotated[float, Field(ge=-360, le=360)] = 90
    stops: Annotated[tuple[Stop, ...], Field(min_length=2, max_length=MOST_STOPS)] = (
        Stop(alpha=1, at=0),
        Stop(alpha=0, at=100),
    )

    @field_validator("stops")
    @classmethod
    def _in_order(cls, stops: tuple[Stop, ...]) -> tuple[Stop, ...]:
        for before, after in pairwise(stops):
            if after.at < before.at:
                raise ValueError(
                    f"The stops must go on: {after.at:g} % follows {before.at:g} %. Put them in"
                    " order."
                )
        return stops


Scrim = Annotated[NoScrim | PlainScrim | LinearScrim, Field(discriminator="kind")]


class Box(Noun):
    """A box behind the words. `strength` is the opacity of its colour; 0: no box."""

    colour: Colour = "#000000"
    strength: Fraction = 0
    padding_px: Annotated[float, Field(ge=0, le=200)] = 0


class ButtonLook(Noun):
    fill: Colour = "#ffffff"
    ink: Colour = "#0b3640"


class BannerValues(Noun):
    """All that holds in a span; what nobody has said is as written here.

    `percent` is the width of the words as a share of the picture (of their column where they stand
    beside it), `margin_px` the least distance of whatever lies on the picture from its edges.
    `share_percent` is the picture's share of the row where words stand beside it, on `side`.
    `strength` multiplies the opacity of every stop of the scrim. The mark is `mark_percent` of the
    picture wide, at most `mark_most_px`.
    """

    shows: WordsShow = "on"
    place: Place = "start"
    percent: Annotated[float, Field(ge=5, le=100)] = 45
    margin_px: Annotated[float, Field(ge=0, le=1000)] = 24
    align: Align = "start"
    heading_px: TypePx = 40
    text_px: TypePx = 18
    colour: Colour = "#ffffff"
    button: ButtonLook = ButtonLook()
    box: Box = Box()
    scrim: Scrim = NoScrim()
    strength: Fraction = 0.5
    side: Literal["start", "end"] = "end"
    share_percent: Annotated[float, Field(ge=10, le=90)] = 50
    mark_place: Place = "top-start"
    mark_percent: Annotated[float, Field(ge=1, le=100)] = 30
    mark_most_px: Annotated[float, Field(ge=8, le=4000)] = 640
    inset_place: Place = "middle"
    inset_px: InsetPx = 160
    inset_round: bool = True
    inset_border_px: Annotated[float, Field(ge=0, le=100)] = 0
    inset_border: Colour = "#ffffff"
