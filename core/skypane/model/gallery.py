"""Many pictures in one spot: what belongs to each of them, and what a span shows of that."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from skypane.model.words import Href, clean_text
from skypane.values import Noun

MOST_TITLE, MOST_CAPTION = 200, 1000

Title = Annotated[str, Field(max_length=MOST_TITLE), AfterValidator(clean_text)]
CaptionText = Annotated[str, Field(max_length=MOST_CAPTION), AfterValidator(clean_text)]


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


Captions = Literal["none", "title", "all"]
CaptionPx = Annotated[float, Field(ge=8, le=100)]


class CaptionValues(Noun):
    """What captions show in a span, and how large."""

    captions: Captions = Field("all", title="captions")
    title_px: CaptionPx = Field(17, title="size of titles")
    caption_px: CaptionPx = Field(15, title="size of captions")
