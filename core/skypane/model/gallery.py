"""Many pictures in one spot: what belongs to each of them, and how a span arranges them."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, model_validator

from skypane.model.banner import Place
from skypane.model.words import Href, said_text
from skypane.values import Noun

MOST_TITLE, MOST_CAPTION = 200, 1000

Title = Annotated[str, Field(max_length=MOST_TITLE), AfterValidator(said_text)]
CaptionText = Annotated[str, Field(max_length=MOST_CAPTION), AfterValidator(said_text)]


class Item(Noun):
    """What belongs to one picture of many beside itself: a caption, where it leads, and whether it
    takes two columns where there are as many."""

    title: Title = ""
    text: CaptionText = ""
    href: Href | None = None
    wide: bool = False

    @property
    def has_caption(self) -> bool:
        return bool(self.title.strip() or self.text.strip())


#: How many pictures are arranged: cells of columns; rows that are filled in their own ratios;
#: columns that are filled in their own ratios; a row each, its caption beside it; side by side,
#: turned sideways one after the other or by pages; one under the other; not at all.
Arrangement = Literal["cells", "justified", "masonry", "rows", "slides", "pages", "list", "hidden"]
#: Arrangements that a visitor turns sideways.
TURNED: tuple[Arrangement, ...] = ("slides", "pages")
#: Arrangements that keep each picture's own ratio, whatever its height rule says.
OWN_RATIOS: tuple[Arrangement, ...] = ("justified", "masonry")
Captions = Literal["none", "title", "all"]
CaptionPx = Annotated[float, Field(ge=8, le=100)]


class CaptionValues(Noun):
    """What captions show in a span, and how large."""

    captions: Captions = Field("all", title="captions")
    title_px: CaptionPx = Field(17, title="size of titles")
    caption_px: CaptionPx = Field(15, title="size of captions")


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


Controls = Literal["dots", "numbers", "arrows", "none"]
#: How one slide gives way to the next: along the row, one through the other, the next one growing,
#: or at once.
Change = Literal["slide", "fade", "zoom", "none"]
#: The shortest time from one change to the next in seconds: with three changes in a second a page
#: flashes (WCAG 2.2, 2.3.1).
LEAST_EVERY_S = 1.0


def _stands_still(every_s: float) -> float:
    if every_s < LEAST_EVERY_S:
        raise ValueError(
            f"With a change every {every_s:g} s the slides"
            f" {'change without a stop' if every_s <= 0 else 'hardly stop'}: the picture flickers,"
            " and three flashes in a second can harm (WCAG 2.2, 2.3.1). Give at least"
            f" {LEAST_EVERY_S:g} s; 5 s are common."
        )
    return every_s


class SlidesValues(CaptionValues):
    """All that holds in a span of a slideshow.

    `at_a_time` slides stand side by side, `gutter_px` apart. Controls lie on the picture, in one of
    the nine places, or under it. A change takes `change_s` seconds; where the slides change by
    themselves they do so every `every_s`, from one change to the next, and stand still for what is
    left of it. `loop`: after the last comes the first.
    """

    at_a_time: int = Field(1, ge=1, le=12, title="slides at a time")
    gutter_px: float = Field(0, ge=0, le=400, title="gutter")
    controls: Controls = Field("dots", title="controls")
    controls_lie: Literal["on", "under"] = Field("on", title="where controls are")
    controls_place: Place = Field("bottom", title="place of the controls")
    captions_lie: Literal["on", "under"] = Field("under", title="where captions are")
    change: Change = Field("slide", title="change")
    change_s: float = Field(0.4, ge=0, le=5, title="time of a change")
    by_itself: bool = Field(False, title="by itself")
    every_s: Annotated[float, AfterValidator(_stands_still)] = Field(
        5, le=600, title="time from one change to the next"
    )
    swipe: bool = Field(True, title="swipe")
    loop: bool = Field(True, title="loop")

    @model_validator(mode="after")
    def _one_through_one(self) -> SlidesValues:
        if self.at_a_time > 1 and self.is_stacked:
            raise ValueError(
                f"{self.at_a_time} slides at a time move along or change at once; to"
                f" {'cross-fade' if self.change == 'fade' else 'zoom'}, show one at a time."
            )
        if self.by_itself and self.change != "none" and self.change_s >= self.every_s:
            raise ValueError(
                f"A change that takes {self.change_s:g} s leaves no time to look where the next one"
                f" comes every {self.every_s:g} s. Make the change shorter, or the time between."
            )
        return self

    @property
    def pause_s(self) -> float:
        """How long a slide stands still between two changes, in seconds."""
        return self.every_s - (0 if self.change == "none" else self.change_s)

    @property
    def is_stacked(self) -> bool:
        """Whether slides lie one on the other once the script runs."""
        return self.change in ("fade", "zoom")


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
