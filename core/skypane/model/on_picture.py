"""Words on a picture in one span: where and how they stand, and what lies between them and the
picture. What they say is said once, see `skypane.model.words`."""

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


class OnPicture(Noun):
    """All that holds in a span for words on a picture; what nobody has said is as written here. The
    values of a kind that has words are one of these. Titles are what each value is called in lists
    of values and in the history.

    `percent` is the width of the words as a share of the picture (of their column where they stand
    beside it), `margin_px` the least distance of whatever lies on the picture from its edges.
    `strength` multiplies the opacity of every stop of the scrim.
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
