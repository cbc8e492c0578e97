"""Width and height rules of a frame (CSS Sizing 4). All sizes are CSS px."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field, model_validator

from skypane.values import FLATTEST, NARROWEST, Noun, Percent, Px, Side

Stands = Literal["start", "centre", "end"]


def _ordered(noun: BaseModel, low: float | None, high: float | None, what: str) -> None:
    if low is not None and high is not None and low > high:
        raise ValueError(
            f"The least {what} ({low:g} px) is larger than the greatest ({high:g} px). Swap them or"
            " clear one."
        )


class _Bounded(Noun):
    least_px: Px | None = None
    greatest_px: Px | None = None

    @model_validator(mode="after")
    def _bounds_in_order(self) -> _Bounded:
        _ordered(self, self.least_px, self.greatest_px, "size")
        return self


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
            raise ValueError(
                f"{self.take} of {self.columns} columns cannot be taken. Take at most"
                f" {self.columns}."
            )
        return self


WidthRule = Annotated[
    FixedWidth | ShareWidth | FullWidth | ColumnsWidth, Field(discriminator="kind")
]


class RatioHeight(_Bounded):
    """`w`:`h` of the frame's width. Besides px it can be bounded by shares of the viewport's
    height, as CSS can with `vh`."""

    kind: Literal["ratio"] = "ratio"
    w: Side
    h: Side
    least_vh: Percent | None = None
    greatest_vh: Percent | None = None

    @model_validator(mode="after")
    def _can_be_drawn(self) -> RatioHeight:
        if not NARROWEST <= self.w / self.h <= FLATTEST:
            raise ValueError(
                f"A ratio of {self.w:g}:{self.h:g} is no frame. Stay between 1:1000 and 1000:1."
            )
        low, high = self.least_vh, self.greatest_vh
        if low is not None and high is not None and low > high:
            raise ValueError(
                f"The least height ({low:g} % of the viewport) is above the greatest ({high:g} %)."
                " Swap them."
            )
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


HeightRule = Annotated[
    RatioHeight | FixedHeight | ViewportHeight | NaturalHeight, Field(discriminator="kind")
]
