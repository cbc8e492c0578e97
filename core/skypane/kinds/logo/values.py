"""What a logo does in one span beside showing its picture."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, field_validator

from skypane.galleries.logo import LEAST_LETTERING_PX
from skypane.values import Id, Noun

MOST_CUTS = 5


class LogoCut(Noun):
    """One cut of a logo: an original, and the height of its lettering as a share of its own, in
    percent; None where it has no lettering."""

    original: Id
    lettering_percent: Annotated[float, Field(ge=1, le=100)] | None = None


class LogoValues(Noun):
    """All that holds in a span of a logo.

    `cuts` are the same in all spans, the fullest first. `padding_px` is between the box and what is
    drawn in it; `lies` says where that stands. `drawn` natural: never larger than the cut's own px.
    `bar`: the box's colour goes on from edge to edge of the page.
    """

    cuts: Annotated[tuple[LogoCut, ...], Field(max_length=MOST_CUTS)] = Field((), title="cuts")
    least_px: float = Field(LEAST_LETTERING_PX, ge=4, le=40, title="least height of lettering")
    padding_px: float = Field(0, ge=0, le=400, title="padding")
    lies: Literal["start", "centre", "end"] = Field("start", title="alignment")
    drawn: Literal["fitted", "natural"] = Field("fitted", title="size")
    bar: bool = Field(False, title="bar")

    @field_validator("cuts")
    @classmethod
    def _each_once(cls, cuts: tuple[LogoCut, ...]) -> tuple[LogoCut, ...]:
        if len({c.original for c in cuts}) < len(cuts):
            raise ValueError("One picture stands for two cuts. Each cut is a picture of its own.")
        return cuts
