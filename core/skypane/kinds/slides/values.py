"""What a slideshow does in one span beside showing its slides."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field, model_validator

from skypane.model import CaptionValues, Place

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
