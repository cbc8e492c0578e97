"""`readable`: the contrast of text with what lies under it."""

from __future__ import annotations

import sys
from typing import Annotated, Any

import numpy as np
import typer
from pydantic import Field

from skypane.cli.batch import Batch, Question, run
from skypane.errors import InvalidPlan
from skypane.model import Box, Colour, NoScrim, Scrim
from skypane.words import scrim as scrims
from skypane.words.block import channels
from skypane.words.contrast import (
    WORST_SHARE,
    contrast,
    exact_luminance,
    is_large,
    least_strength,
    luminance_of,
    needed,
    ratio,
    ratio_of,
)

commands = typer.Typer()

Channel = Annotated[int, Field(ge=0, le=255)]
#: A px of the picture under the text: red, green, blue, and an opacity where it has one.
Px = tuple[Channel, Channel, Channel] | tuple[Channel, Channel, Channel, Channel]
MOST_PX = 100_000


class Text(Question):
    """The text's colour, its size in CSS px, and whether it is bold (700 and above)."""

    colour: Colour = "#ffffff"
    size_px: float = Field(16, ge=1, le=1000)
    bold: bool = False

    @property
    def large(self) -> bool:
        return is_large(self.size_px, 700 if self.bold else 400)


class ReadableQuestion(Question):
    """What lies under a text, from below: `background`, the picture's `px`, `scrim` with its
    `strength`, `box`.

    `px` go row by row, `columns` to a row (None: all in one row), the first of them with its left
    top corner `left` and `top` CSS px from the frame's; `frame` is the picture's frame, width and
    height in CSS px, which a gradient asks for. Without px the text lies on the background alone.
    """

    text: Text = Text()
    background: Colour = "#ffffff"
    px: Annotated[list[Px], Field(max_length=MOST_PX)] = []
    columns: int | None = Field(None, ge=1, le=MOST_PX)
    left: float = Field(0, ge=-20_000, le=20_000)
    top: float = Field(0, ge=-20_000, le=20_000)
    frame: tuple[float, float] | None = None
    scrim: Scrim = NoScrim()
    strength: float = Field(1, ge=0, le=1)
    box: Box = Box()


def answer_readable(question: ReadableQuestion) -> dict[str, Any]:
    q = question
    under = np.array(channels(q.background), dtype=np.float64)[None, :]
    n = max(1, len(q.px))
    below = np.repeat(under, n, axis=0)
    if q.px:
        given = np.array([[*px, 255][:4] for px in q.px], dtype=np.float64)
        alpha = given[:, 3:] / 255
        below = given[:, :3] * alpha + below * (1 - alpha)
    painted = _painted(q, n)
    ink, enough = luminance_of(q.text.colour), needed(q.text.large)

    def laid(strength: float, part: slice) -> Any:
        out = below[part]
        if painted is not None:
            colour, alpha = (_of(x, part, n) for x in painted)
            out = scrims.over(out, colour * strength, alpha * strength)
        if q.box.strength:
            colour = np.array(channels(q.box.colour)) * q.box.strength
            out = scrims.over(out, colour, np.full(len(out), q.box.strength))
        return exact_luminance(out)

    def passes(strength: float) -> bool:
        """Whether at least 95 % of the px reach what is needed; more need not be looked at once
        too many do not."""
        spare = n // WORST_SHARE
        for start in range(0, n, CHUNK):
            ratios = ratio(ink, laid(strength, slice(start, start + CHUNK)))
            spare -= int((ratios < enough).sum())
            if spare < 0:
                return False
        return True

    here = contrast(ink, laid(q.strength, slice(0, n)))
    least = least_strength(lambda s: 1.0 if passes(s) else 0.0, 1e-7, best=False)
    return {
        "worst": round(float(here.worst), 4),
        "mean": round(float(here.mean), 4),
        "needed": enough,
        "passes": bool(here.worst >= enough),
        "background": round(ratio_of(q.text.colour, q.background), 4),
        "least_strength": None if least.strength is None else round(least.strength, 4),
    }


#: How many px are looked at in one go.
CHUNK = 8000


def _of(values: Any, part: slice, n: int) -> Any:
    """What belongs to some of the px; what is one for all stays."""
    return values[part] if getattr(values, "shape", ())[:1] == (n,) else values


def _painted(q: ReadableQuestion, n: int) -> tuple[Any, Any] | None:
    """The scrim at full strength at every px."""
    if q.scrim.kind == "linear" and q.frame is None:
        raise InvalidPlan(
            'A gradient depends on the frame: give its width and height as "frame".', field="frame"
        )
    w, h = q.frame or (1.0, 1.0)
    if not (0 < w <= 20_000 and 0 < h <= 20_000):
        raise InvalidPlan("A frame has a width and a height above 0 px.", field="frame")
    row, column = np.divmod(np.arange(n), q.columns or n)
    return scrims.painted(q.scrim, 1.0, q.left + column + 0.5, q.top + row + 0.5, w, h)


@commands.command()
def readable(batch: Batch = False) -> None:
    """The contrast of a text with the px under it: the worst 5 % and the mean, and the least
    strength of the scrim that is enough.

    In: {"text": {"colour", "size_px", "bold"}, "background", "px": [[r, g, b]], "columns", "left",
    "top", "frame": [width, height], "scrim": {"kind": "plain" | "linear", …}, "strength", "box"};
    out: {"worst", "mean", "needed", "passes", "background", "least_strength"}.
    """
    run(ReadableQuestion, answer_readable, batch, sys.stdin.buffer)
