"""Width and height rules of a frame (CSS Sizing 4). All sizes are CSS px."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import BaseModel, Field, model_validator

from skypane.errors import InvalidPlan, written
from skypane.values import FLATTEST, MOST_PX, NARROWEST, Noun, Percent, Px, Side

Stands = Literal["start", "centre", "end"]
#: The letter of a span: A is the narrowest.
Letter = Annotated[str, written(r"^[A-Z]$", "It must be the letter of a span, as A.")]


def _ordered(noun: BaseModel, low: float | None, high: float | None, what: str) -> None:
    if low is not None and high is not None and low > high:
        raise ValueError(
            f"The least {what} ({low:g} px) is larger than the greatest ({high:g} px). Swap them or"
            " clear one."
        )


#: Ratios that pictures, screens and frames have, width over height, the plainest first (common
#: practice).
USUAL_RATIOS: tuple[tuple[int, int], ...] = (
    (1, 1), (16, 9), (4, 3), (3, 2), (2, 1), (5, 4), (4, 5), (3, 4), (2, 3), (9, 16), (1, 2),
    (3, 1), (5, 2), (7, 5), (16, 10), (21, 9), (1, 3), (4, 1), (9, 21),
)  # fmt: skip


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
    """From edge to edge of the page, less `margin_px` CSS px on both sides."""

    kind: Literal["full"] = "full"
    margin_px: Annotated[float, Field(ge=0, le=1000)] = 0


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


class PercentColumnsWidth(_Bounded):
    """One of `columns` cells across the holder, sized in per cent of it (rules §2).

    `percent` is the CSS width of a cell; None: as much as a full row leaves. `padding_percent` is
    on both of its sides. With `content-box` the padding comes on top of the width, with
    `border-box` it is part of it (CSS Sizing 3, `box-sizing`). The frame is the content box.
    """

    kind: Literal["percent-columns"] = "percent-columns"
    columns: Annotated[int, Field(ge=1, le=24)]
    percent: Annotated[float, Field(ge=0.01, le=100)] | None = None
    padding_percent: Annotated[float, Field(ge=0, le=50)] = 0
    box: Literal["content-box", "border-box"] = "content-box"
    of: Literal["page", "container"] = "container"

    @model_validator(mode="after")
    def _something_left(self) -> PercentColumnsWidth:
        if self.frame_percent < 0.01:
            cell = 100 / self.columns if self.percent is None else self.percent
            raise ValueError(
                f"{cell:.6g} − 2·{self.padding_percent:g} = −{abs(self.frame_percent):.6g} %: the"
                " padding leaves no width. Make it smaller."
            )
        return self

    @property
    def css_percent(self) -> float:
        """The CSS width of a cell in per cent of the holder."""
        if self.percent is not None:
            return self.percent
        whole = 100 / self.columns
        return whole if self.box == "border-box" else whole - 2 * self.padding_percent

    @property
    def frame_percent(self) -> float:
        """The content box, which is the picture's frame."""
        inside = 2 * self.padding_percent if self.box == "border-box" else 0
        return self.css_percent - inside

    @property
    def cell_percent(self) -> float:
        """The border box, which is what the row has to hold."""
        return self.frame_percent + 2 * self.padding_percent


WidthRule = Annotated[
    FixedWidth | ShareWidth | FullWidth | ColumnsWidth | PercentColumnsWidth,
    Field(discriminator="kind"),
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


def first_width(kind: str, before: WidthRule) -> WidthRule:
    """A width rule as it begins in the place of another one, whose bounds it keeps. Raises
    InvalidPlan for a kind that there is not."""
    bounds = {"least_px": before.least_px, "greatest_px": before.greatest_px}
    match kind:
        case "full":
            return FullWidth(**bounds)
        case "share":
            return ShareWidth(percent=50, of=getattr(before, "of", "page"), **bounds)
        case "fixed":
            return FixedWidth(width_px=600, **bounds)
        case "columns":
            return ColumnsWidth(columns=3, gutter_px=20, **bounds)
        case "percent-columns":
            return PercentColumnsWidth(columns=3, padding_percent=1, **bounds)
    raise InvalidPlan(f"There is no width rule called {kind}.", field="kind")


def first_height(kind: str, before: HeightRule, now_px: float) -> HeightRule:
    """A height rule as it begins in the place of another one, whose bounds in px it keeps. `now_px`
    is how high the frame is. Raises InvalidPlan for a kind that there is not."""
    bounds = {"least_px": before.least_px, "greatest_px": before.greatest_px}
    match kind:
        case "ratio":
            return RatioHeight(w=16, h=9, **bounds)
        case "fixed":
            return FixedHeight(height_px=min(max(1, round(now_px)), MOST_PX), **bounds)
        case "vh":
            return ViewportHeight(percent=60, **bounds)
        case "natural":
            return NaturalHeight(**bounds)
    raise InvalidPlan(f"There is no height rule called {kind}.", field="kind")


class FrameValues(Noun):
    """What a named frame says in one span; `None` is handed down from the next wider span."""

    width: WidthRule | None = None
    height: HeightRule | None = None
    stands: Stands | None = None


#: What a named frame is known by for ever, whatever it is called.
FrameId = Annotated[
    str,
    written(
        r"^[a-z][a-z0-9-]{0,39}$",
        "It must begin with a small letter and hold only small letters, digits and hyphens.",
    ),
]


class NamedFrame(Noun):
    """A frame of a site that many placements use. `spans` holds, per letter of a span, what it says
    there itself."""

    id: FrameId
    name: Annotated[str, Field(min_length=1, max_length=40)]
    spans: dict[Letter, FrameValues] = Field(default_factory=dict)
