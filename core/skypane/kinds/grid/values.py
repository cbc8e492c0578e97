"""How a grid arranges its items in one span."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from skypane.model import CaptionValues

#: How many pictures are arranged: cells of columns; rows that are filled in their own ratios;
#: columns that are filled in their own ratios; a row each, its caption beside it; side by side,
#: turned sideways one after the other or by pages; one under the other; not at all.
Arrangement = Literal["cells", "justified", "masonry", "rows", "slides", "pages", "list", "hidden"]
#: Arrangements that a visitor turns sideways.
TURNED: tuple[Arrangement, ...] = ("slides", "pages")
#: Arrangements that keep each picture's own ratio, whatever its height rule says.
OWN_RATIOS: tuple[Arrangement, ...] = ("justified", "masonry")


class GridValues(CaptionValues):
    """All that holds in a span; titles are what each value is called.

    `columns` are those of cells and masonry, how many a justified row goes for, and how many show
    at a time of those that are turned. `padding_px` is inside each cell, on every side;
    `padding_percent`, where it is above 0, the same as a share of what the grid has inside its
    outer margin, and
    `margin_px` around all of them. `first`: how many show before *more* is asked for; 0: all.
    """

    arranged: Arrangement = Field("cells", title="arrangement")
    columns: int = Field(3, ge=1, le=24, title="columns")
    gutter_px: float = Field(24, ge=0, le=400, title="gutter")
    padding_px: float = Field(0, ge=0, le=200, title="padding of cells")
    padding_percent: float = Field(0, ge=0, le=40, title="padding of cells as a share")
    margin_px: float = Field(0, ge=0, le=1000, title="outer margin")
    first: int = Field(0, ge=0, le=2000, title="how many show first")
    more: Annotated[str, Field(max_length=80)] = Field("Show more", title="words for more")
    page_of: int = Field(4, ge=1, le=200, title="items on a page")
    share_percent: float = Field(40, ge=5, le=95, title="share of the row")

    @property
    def is_turned(self) -> bool:
        return self.arranged in TURNED
