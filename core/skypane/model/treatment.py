"""What a part does within one span."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from skypane.errors import written
from skypane.geometry import Drawn
from skypane.model.frame import HeightRule, Stands, WidthRule
from skypane.model.original import MOST_AREAS, AreaName
from skypane.values import Fraction, Id, Noun

Fit = Literal["cover", "contain"]
Shows = Literal["picture", "colour", "nothing"]
#: What a treatment can ask for: of a variant also that the usual one shows.
Showing = Literal["picture", "colour", "nothing", "usual"]
Colour = Annotated[
    str, written(r"^#[0-9a-fA-F]{6}$", "It must be a colour written with six digits, as #d5d9da.")
]
#: What lies behind a picture: a colour, or nothing but the page.
NO_BACKGROUND = "none"
Background = Annotated[
    str,
    written(
        r"^(none|#[0-9a-fA-F]{6})$",
        "It must be a colour written with six digits, as #d5d9da, or none.",
    ),
]


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


class Treatment(Noun):
    """What a part does within one span. `None` means: handed down from the next wider span.

    `crop` and `keeps` speak of one original: they are handed down only as far as that original is.
    """

    width: WidthRule | None = None
    height: HeightRule | None = None
    # the picture, only the colour of the frame, or no frame at all; of a variant the usual one
    show: Showing | None = None
    original: Id | None = None
    crop: Drawn | None = None  # cut from the original before anything else; all of it says: no crop
    # which keep areas matter, the first most
    keeps: Annotated[tuple[AreaName, ...], Field(max_length=MOST_AREAS)] | None = None
    stands: Stands | None = None  # where a frame narrower than its holder is
    fit: Fit | None = None
    aim: Aim | None = None
    whole: bool | None = None  # deliver the whole picture instead of cutting it to what shows
    background: Background | None = None
