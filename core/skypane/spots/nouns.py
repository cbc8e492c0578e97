"""A rectangle as it is seen on a design, and a rule that gives it."""

from __future__ import annotations

from typing import Annotated

from pydantic import BaseModel, Field, model_validator

from skypane.model import Container, HeightRule, Stands, WidthRule
from skypane.values import GREATEST_VIEWPORT, LEAST_VIEWPORT, Answer, Noun

#: So many px either way a rule may differ from a rectangle: what a hand draws is seldom nearer.
NEAR_PX = 1.0

#: A place on a picture of a design in CSS px, which are not whole where it was exported at 1.5x.
_Place = Annotated[float, Field(ge=-100_000, le=100_000)]


class Seen(Noun):
    """A rectangle on a design that was drawn for a page `width` CSS px wide, from the design's own
    left and upper edge, in CSS px. `viewport_height` is that of the design's first screen where it
    has one."""

    width: Annotated[float, Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)]
    left: _Place
    right: _Place
    top: _Place | None = None
    bottom: _Place | None = None
    viewport_height: Annotated[float, Field(ge=100, le=20_000)] | None = None

    @model_validator(mode="after")
    def _is_there(self) -> Seen:
        _has_room(self.left, self.right, "wide")
        if (self.top is None) != (self.bottom is None):
            raise ValueError("A rectangle has both a top and a bottom, or neither.")
        if self.top is not None and self.bottom is not None:
            _has_room(self.top, self.bottom, "high")
        if self.left < -NEAR_PX or self.right > self.width + NEAR_PX:
            raise ValueError(
                f"The rectangle from {self.left:g} to {self.right:g} px reaches out of a page that"
                f" is {self.width:g} px wide. Draw it on the page."
            )
        return self

    @property
    def w(self) -> float:
        return self.right - self.left

    @property
    def h(self) -> float | None:
        return None if self.top is None or self.bottom is None else self.bottom - self.top


def _has_room(a: float, b: float, what: str) -> None:
    if b - a < 1:
        raise ValueError(
            f"The rectangle is {max(b - a, 0):g} px {what}. Draw one that is at least 1 px {what}."
        )


class Asked(BaseModel):
    """What spots are read with: the site's container and gutter, and one rectangle at each width
    at which the spot is on a design."""

    container: Container = Container()
    gutter_px: Annotated[float, Field(ge=0, le=1000)] = 0
    seen: Annotated[tuple[Seen, ...], Field(min_length=1, max_length=40)]

    model_config = {"extra": "forbid"}

    @model_validator(mode="after")
    def _one_a_width(self) -> Asked:
        widths = [s.width for s in self.seen]
        if len(set(widths)) < len(widths):
            raise ValueError("Two rectangles are of the same width. Give one for each.")
        return self


class ReadRule(Answer):
    """A frame rule that gives the rectangles. `stands` is None where none of its places is the one
    that was drawn; `column` is then the first of the columns that it stands over, from 1, if it
    stands over columns. `at` says how wide the frame would be at 360, 768, 1280 and 1920 CSS px."""

    width: WidthRule
    height: HeightRule | None
    stands: Stands | None
    column: int | None
    sentence: str
    at: tuple[float, ...]
