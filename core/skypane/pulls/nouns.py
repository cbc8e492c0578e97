"""What is told of a stage, and of a pull."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from skypane.model import WidthRule
from skypane.values import GREATEST_VIEWPORT, LEAST_VIEWPORT, Answer, Noun

_Place = Annotated[float, Field(ge=-1_000_000, le=1_000_000)]


class Lines(Noun):
    """What a hand likes to stop at beside what the placement's own rules say: edges of what was
    drawn on the design, in CSS px, `x` from the page's left edge, `y` from the top of the
    placement's box; and where the fold is, None where it is not on the stage."""

    x: Annotated[tuple[_Place, ...], Field(max_length=400)] = ()
    y: Annotated[tuple[_Place, ...], Field(max_length=400)] = ()
    fold: _Place | None = None


class Held(Noun):
    """A viewport in CSS px at which a placement is held, what a classic scrollbar takes of its
    page, and the part that is worked on."""

    part: Annotated[int, Field(ge=0, le=100_000)] = 0
    letter: Annotated[str, Field(max_length=2)]
    width: Annotated[int, Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)]
    height: Annotated[int, Field(ge=100, le=20_000)]
    scrollbar_px: Annotated[float, Field(ge=0, le=100)] = 0
    lines: Lines = Lines()


class PulledTo(Noun):
    """Where a handle was pulled `to`, in CSS px along its axis; or the `value` that was typed; or
    that it takes its value from the wider span. A stop within `near_px` is taken unless it is
    pulled `free`."""

    handle: Annotated[str, Field(max_length=80)]
    to: _Place | None = None
    value: Annotated[float, Field(ge=-1_000_000, le=1_000_000)] | None = None
    near_px: Annotated[float, Field(ge=0, le=400)] = 0
    free: bool = False

    @model_validator(mode="after")
    def _one_of_both(self) -> PulledTo:
        if (self.to is None) == (self.value is None):
            raise ValueError("Say where a handle is pulled to, or the value that it gets.")
        return self


class StopAt(Answer):
    """A place at which a hand likes to stop, in CSS px along the axis, and what it is there."""

    at: float
    words: str


class HandleReading(Answer):
    """An edge or a point that can be pulled. Its line goes from (x0, y0) to (x1, y1) in CSS px from
    the page's left edge and the top of the placement's box. It can be pulled from `at_least` to
    `at_most` along its axis. `said`: its value in words; `is_own`: this span itself sets it."""

    id: str
    name: str
    axis: Literal["x", "y"]
    x0: float
    y0: float
    x1: float
    y1: float
    value: float
    unit: str
    step: float
    said: str
    at_least: float
    at_most: float
    is_own: bool
    stops: tuple[StopAt, ...]


class FirstWidth(Answer):
    """A width that a spot may begin with, in words."""

    words: str
    width: WidthRule


class StageReading(Answer):
    """A placement at one viewport, with what can be pulled of it in reading order. `left`, `wide`
    and `high`: its box on the page; `holder` the container's left and right edge, `columns` those
    of every column where its width rule has some; `sharp_to_px`: as wide as the frame may be before
    its file is soft at the greatest density that is offered, None where nothing is known of it;
    `first`: what is asked of a spot whose width nobody has said in any span."""

    left: float
    wide: float
    high: float
    container: tuple[float, float]
    columns: tuple[tuple[float, float], ...]
    sharp_to_px: float | None
    first: tuple[FirstWidth, ...]
    told: tuple[str, ...]
    handles: tuple[HandleReading, ...]


class Pulled(Answer):
    """What a pull sets in its span: fields of a treatment, of one `part` or of all of them, and
    values of the kind; `gone` are fields that the span takes back, since the wider one says the
    same.
    `words` say the value, `stop` where the hand was stopped by what it likes, `bound` why it
    could not go farther. `told`: size, ratio, what shows and the areas, as it then is."""

    treatment: dict[str, Any]
    layout: dict[str, Any]
    of_all: bool
    part: int
    gone: tuple[str, ...]
    at: float
    words: str
    stop: str | None
    bound: str | None
    told: tuple[str, ...]
