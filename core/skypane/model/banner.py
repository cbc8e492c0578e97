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
    """All that holds in a span; what nobody has said is as written here. Titles are what each value
    is called in lists of values and in the history.

    `percent` is the width of the words as a share of the picture (of their column where they stand
    beside it), `margin_px` the least distance of whatever lies on the picture from its edges.
    `share_percent` is the picture's share of the row where words stand beside it, on `side`.
    `strength` multiplies the opacity of every stop of the scrim. The mark is `mark_percent` of the
    picture wide, at most `mark_most_px`.
    """

    shows: WordsShow = Field("on", title="where words show")
    place: Place = Field("start", title="place of the words")
    percent: float = Field(45, ge=5, le=100, title="width of the words")
    margin_px: float = Field(24, ge=0, le=1000, title="margin")
    align: Align = Field("start", title="alignment")
    heading_px: TypePx = Field(40, title="size of the heading")
    text_px: TypePx = Field(18, title="size of the text")
    colour: Colour = Field("#ffffff", title="colour of the words")
    button: ButtonLook = Field(ButtonLook(), title="colours of the buttons")
    box: Box = Field(Box(), title="box behind the words")
    scrim: Scrim = Field(NoScrim(), title="scrim")
    strength: Fraction = Field(0.5, title="strength of the scrim")
    side: Literal["start", "end"] = Field("end", title="side of the words")
    share_percent: float = Field(50, ge=10, le=90, title="share of the row")
    mark_place: Place = Field("top-start", title="place of the mark")
    mark_percent: float = Field(30, ge=1, le=100, title="width of the mark")
    mark_most_px: float = Field(640, ge=8, le=4000, title="greatest width of the mark")
    inset_place: Place = Field("middle", title="place of the inset")
    inset_px: InsetPx = Field(160, title="size of the inset")
    inset_round: bool = Field(True, title="shape of the inset")
    inset_border_px: float = Field(0, ge=0, le=100, title="border of the inset")
    inset_border: Colour = Field("#ffffff", title="colour of the inset's border")
