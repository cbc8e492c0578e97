"""Rectangles on pictures and in frames."""

from __future__ import annotations

from typing import Annotated, NamedTuple

from pydantic import Field, model_validator

from skypane.values import LEAST_SHARE, NOISE, Fraction, Noun


class Rect(Noun):
    """A rectangle in fractions of a picture, x and y the top left corner."""

    x: Fraction
    y: Fraction
    w: Annotated[float, Field(ge=LEAST_SHARE, le=1)]
    h: Annotated[float, Field(ge=LEAST_SHARE, le=1)]

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


class Crop(Noun):
    """A rectangle of an original in whole image px."""

    x: Annotated[int, Field(ge=0)]
    y: Annotated[int, Field(ge=0)]
    w: Annotated[int, Field(gt=0)]
    h: Annotated[int, Field(gt=0)]


class Box(NamedTuple):
    x: float
    y: float
    w: float
    h: float


class Region(NamedTuple):
    """A rectangle by its edges, in fractions of the picture."""

    x0: float
    x1: float
    y0: float
    y1: float


WHOLE = Region(0.0, 1.0, 0.0, 1.0)


def joined(a: Region, b: Region) -> Region:
    """The smallest region around both."""
    return Region(min(a.x0, b.x0), max(a.x1, b.x1), min(a.y0, b.y0), max(a.y1, b.y1))


def overlap(a: Region | None, b: Region | None) -> Region | None:
    """What both have in common; None if nothing."""
    if a is None or b is None:
        return None
    region = Region(max(a.x0, b.x0), min(a.x1, b.x1), max(a.y0, b.y0), min(a.y1, b.y1))
    return region if region.x1 > region.x0 and region.y1 > region.y0 else None


class Edges(Noun):
    """A part of an original by its edges, in fractions."""

    x0: float
    x1: float
    y0: float
    y1: float
