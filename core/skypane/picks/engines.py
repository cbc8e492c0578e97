"""Where browser engines part, as data: what one takes and another does not (docs/engines.md tells
what was seen).

The standard (HTML §4.8.4, Media Queries 4, CSS Values 4) leaves the choice among candidates to the
browser; all current engines take the least density that suffices. They differ in numbers, in math
functions and in what they know.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

Policy = Literal["least-sufficient", "geometric", "chromium", "firefox", "webkit"]

#: Image types that all three engines take in `type`.
TYPES = frozenset(
    f"image/{kind}"
    for kind in (
        *("avif", "webp", "jpeg", "jpg", "pjpeg", "png", "x-png", "apng", "gif", "svg+xml", "bmp"),
        *("x-icon", "vnd.microsoft.icon", "x-xbitmap"),
    )
)
JXL = frozenset({"image/jxl"})


@dataclass(frozen=True, eq=False)
class Engine:
    """How one engine reads `srcset`, `sizes` and `media`. Compared by identity, so that what was
    parsed for it can be kept."""

    name: str
    types: frozenset[str] = TYPES
    geometric: bool = False  # chooses by the geometric mean of neighbouring densities
    prefers_data: bool = False  # takes a denser data: URL than the one that would do
    math: frozenset[str] | None = None  # functions that are taken; None: all of CSS Values 4
    constants: bool = True  # pi, e, infinity and NaN in math functions
    finite_math: bool = False  # division by zero makes the value bad
    length_slack_px: float = 0.0  # of lengths in media queries, for min-, max-, =, <= and >=
    length_grid_px: float | None = (
        None  # lengths in media queries are cut down to multiples of this
    )
    size_grid_px: float | None = (
        None  # the width that `w` is measured against is rounded to multiples of this
    )
    greatest_px: float = (
        1e30  # an infinite or huge size counts as this: no file suffices, and the largest is taken
    )
    single: bool = True  # densities are compared as 32-bit floats
    single_x: bool = False  # an `x` beyond 32-bit floats makes the candidate bad
    leading_zeros: bool = True  # 060w is 60w
    device_steps: int | None = None  # the device's density is this over a whole number
    rounds_dpcm: bool = False  # dpcm is rounded to a hundredth of a dppx
    auto: Literal["layout", "rounded", "unknown"] = (
        "rounded"  # what sizes=auto stands for on a lazy image
    )
    auto_by_img: bool = (
        False  # the img's auto overrules the sources' sizes, and theirs counts only with it
    )
    auto_eager_is_100vw: bool = False  # on an image that is not lazy, auto hides the list after it


_CHROMIUM_MATH = frozenset({"calc", "min", "max", "clamp"})


def _chromium(name: str, *, geometric: bool = False) -> Engine:
    return Engine(
        name,
        types=TYPES | JXL,
        geometric=geometric,
        prefers_data=True,
        math=_CHROMIUM_MATH,
        constants=False,
        finite_math=True,
        length_slack_px=1 / 64,
        greatest_px=2.0**25 - 1,
        single_x=True,
        rounds_dpcm=True,
        auto_eager_is_100vw=True,
    )


ENGINES: dict[Policy, Engine] = {
    "least-sufficient": Engine("The standard"),
    "geometric": _chromium("Older Chromium", geometric=True),
    "chromium": _chromium("Chromium"),
    "firefox": Engine(
        "Firefox",
        size_grid_px=1 / 60,
        greatest_px=2.0**30 / 60,
        single=False,
        leading_zeros=False,
        device_steps=60,
        auto="layout",
        auto_by_img=True,
    ),
    "webkit": Engine(
        "WebKit",
        math=frozenset({"calc"}),
        constants=False,
        finite_math=True,
        length_grid_px=1 / 64,
        greatest_px=2.0**25 - 1,
        auto="unknown",
    ),
}
STANDARD = ENGINES["least-sufficient"]
CHROMIUM = ENGINES["chromium"]
#: The engines that people use, beside the standard.
CURRENT: tuple[Policy, ...] = ("chromium", "firefox", "webkit")


def device_density(engine: Engine, density: float) -> float:
    """The density that a device of this one has in the engine: in Firefox 60 over a whole number,
    so that 1.75 is 1.7647."""
    if engine.device_steps is None or density <= 0:
        return density
    return engine.device_steps / max(1, int(engine.device_steps / density + 0.5))
