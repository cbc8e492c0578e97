"""The one rectangle: by its top left corner and its size, in px or in fractions of a picture."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, Field, model_validator

from skypane.values import LEAST_SHARE, NOISE, Fraction, Noun


class Rectangle(Noun):
    """In px of an image, or in CSS px of a frame; it may reach beyond either."""

    x: float
    y: float
    w: float
    h: float

    @property
    def x1(self) -> float:
        return self.x + self.w

    @property
    def y1(self) -> float:
        return self.y + self.h


class Rect(Rectangle):
    """In fractions of a picture, inside of it."""

    x: Fraction
    y: Fraction
    w: Fraction
    h: Fraction

    @model_validator(mode="before")
    @classmethod
    def _without_noise(cls, values: object) -> object:
        """What is beyond a bound by no more than arithmetic's own error is on the bound:
        1.0000000000000002 is 1."""
        if not isinstance(values, dict):
            return values
        return {
            name: (
                min(1.0, max(0.0, value))
                if isinstance(value, float) and -NOISE <= value <= 1 + NOISE
                else value
            )
            for name, value in values.items()
        }

    @model_validator(mode="after")
    def _inside(self) -> Rect:
        if self.x + self.w > 1 + 1e-6 or self.y + self.h > 1 + 1e-6:
            raise ValueError("The rectangle reaches beyond the picture. Move or shrink it.")
        return self

    @classmethod
    def between(cls, x0: float, x1: float, y0: float, y1: float) -> Rect:
        """The rectangle with these edges."""
        return cls(x=x0, y=y0, w=x1 - x0, h=y1 - y0)

    @property
    def x1(self) -> float:
        """The right edge, never beyond the picture."""
        return min(1.0, self.x + self.w)

    @property
    def y1(self) -> float:
        return min(1.0, self.y + self.h)

    @property
    def edges(self) -> tuple[float, float, float, float]:
        """x0, x1, y0, y1."""
        return self.x, self.x1, self.y, self.y1


class Crop(Rectangle):
    """In whole px of an original."""

    x: Annotated[int, Field(ge=0)]
    y: Annotated[int, Field(ge=0)]
    w: Annotated[int, Field(gt=0)]
    h: Annotated[int, Field(gt=0)]


def _no_hairline(rect: Rect) -> Rect:
    if min(rect.w, rect.h) < LEAST_SHARE:
        raise ValueError(
            f"A rectangle this thin marks nothing. Make each side at least {LEAST_SHARE:g} of the"
            " picture's."
        )
    return rect


#: A rectangle that somebody draws on a picture.
Drawn = Annotated[Rect, AfterValidator(_no_hairline)]

#: All of a picture. As a crop: none.
WHOLE = Rect(x=0, y=0, w=1, h=1)


def joined(a: Rect, b: Rect) -> Rect:
    """The smallest rectangle around both."""
    return Rect.between(min(a.x, b.x), max(a.x1, b.x1), min(a.y, b.y), max(a.y1, b.y1))


def overlap(a: Rect | None, b: Rect | None) -> Rect | None:
    """What both have in common; None if nothing."""
    if a is None or b is None:
        return None
    return spanned(max(a.x, b.x), min(a.x1, b.x1), max(a.y, b.y), min(a.y1, b.y1))


def spanned(x0: float, x1: float, y0: float, y1: float) -> Rect | None:
    """The rectangle with these edges; None where they leave nothing between them."""
    return Rect.between(x0, x1, y0, y1) if x1 > x0 and y1 > y0 else None


def inside(rect: Rect, outer: Rect) -> Rect:
    """A part of `outer` in fractions of `outer`."""
    return Rect.between(
        (rect.x - outer.x) / outer.w,
        (rect.x1 - outer.x) / outer.w,
        (rect.y - outer.y) / outer.h,
        (rect.y1 - outer.y) / outer.h,
    )
