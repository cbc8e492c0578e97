"""What a banner does in one span beside showing its picture and its words: where its mark and its
inset stand, and how it shares a row with its words."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from skypane.model import Colour, OnPicture, Place

InsetPx = Annotated[float, Field(ge=16, le=2000)]


class BannerValues(OnPicture):
    """All that holds in a span; what nobody has said is as written here.

    `share_percent` is the picture's share of the row where words stand beside it, on `side`. The
    mark is `mark_percent` of the picture wide, at most `mark_most_px`.
    """

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
