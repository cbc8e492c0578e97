"""How pictures and the texts beside them share their rows in one span."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from skypane.model import CaptionValues


def _leaves_text(share_percent: float) -> float:
    if share_percent > 100:
        rest = 100 - share_percent
        raise ValueError(
            f"A picture of {share_percent:g} % of its row leaves 100 − {share_percent:g} ="
            f" {rest:g} % for the text. Give at most 100 %, which puts one above the other."
        )
    return share_percent


class BesideValues(CaptionValues):
    """All that holds in a span of pictures with text beside them.

    `columns` of them stand in a row. The picture has `share_percent` of its room, on the side that
    `side` says, the text what is left, `between_px` away; at 100 % they stand one above the other,
    the picture as `stacked` says.
    """

    columns: int = Field(1, ge=1, le=12, title="in a row")
    gutter_px: float = Field(32, ge=0, le=400, title="gutter")
    margin_px: float = Field(0, ge=0, le=1000, title="outer margin")
    share_percent: Annotated[float, AfterValidator(_leaves_text)] = Field(
        50, ge=5, title="share of the picture"
    )
    side: Literal["start", "end", "alternate"] = Field("start", title="side of the picture")
    stacked: Literal["above", "below"] = Field("above", title="where the picture is stacked")
    between_px: float = Field(24, ge=0, le=400, title="room between picture and text")
    align: Literal["start", "centre", "end"] = Field("start", title="alignment of the text")

    @property
    def is_stacked(self) -> bool:
        return self.share_percent == 100
