"""How like one picture is to another: structural similarity (Wang, Bovik, Sheikh and Simoncelli,
Image Quality Assessment: From Error Visibility to Structural Similarity, IEEE Transactions on Image
Processing 13, 2004), of luma, with the paper's window: Gaussian, 11 × 11, σ 1.5.

Only windows that lie wholly inside the picture count. Of large pictures a fixed grid of windows is
looked at, at odd distances, so that it does not fall in step with the blocks of a codec.
"""

from __future__ import annotations

import math
from functools import cache
from typing import Any, Protocol

import numpy as np
import pyvips
from numpy.typing import NDArray

Plane = NDArray[np.float32]


class Rows(Protocol):
    """The luma of a picture, 0…255, row by row as it is asked for; `shape` is (height, width)."""

    shape: tuple[int, int]

    def between(self, top: int, end: int) -> Plane:
        """Rows from `top` up to `end`."""


#: Shares of red, green and blue in luma (ITU-R BT.601).
LUMA = 0.299, 0.587, 0.114

WINDOW = 11
SIGMA = 1.5
#: A grid of windows is laid over a picture so that about so many would be looked at; of its rows
#: every fifth is. That says the mean to within 0.001 (measured on the demo's photographs).
WINDOWS, ROWS = 160_000, 5
_C1, _C2 = np.float32((0.01 * 255) ** 2), np.float32((0.03 * 255) ** 2)
_OFFSETS = np.arange(WINDOW) - WINDOW // 2
_GAUSS = np.exp(-0.5 * (_OFFSETS / SIGMA) ** 2)
WEIGHTS = (_GAUSS / _GAUSS.sum()).astype(np.float32)


def opaque(image: pyvips.Image) -> NDArray[Any]:
    """A picture's px, (height, width, bands); what is transparent is seen on white."""
    if image.hasalpha():
        image = image.flatten(background=[255, 255, 255])
    px: NDArray[Any] = image.numpy()
    return px.reshape(image.height, image.width, -1)


def luma(image: pyvips.Image) -> Plane:
    """Y' of a picture in sRGB, 0…255 (ITU-R BT.601, as JPEG File Interchange Format has it)."""
    return _luma(opaque(image))


def _luma(px: NDArray[Any]) -> Plane:
    if px.shape[2] < 3:
        return px[..., 0].astype(np.float32)
    plane = px[..., 0] * np.float32(LUMA[0])
    plane += px[..., 1] * np.float32(LUMA[1])
    plane += px[..., 2] * np.float32(LUMA[2])
    return plane


def stride_for(width: int, height: int) -> tuple[int, int]:
    """The distances of the windows that are looked at, down and across, in px; odd."""
    across = max(1, int(math.sqrt(width * height / WINDOWS))) | 1
    return (across if across == 1 else across * ROWS), across


#: Rows of windows that are worked out together where they overlap, so that large pictures take
#: little memory.
_STRIP = 24


class Likeness:
    """A picture that others are compared with."""

    def __init__(self, reference: pyvips.Image, *, stride: tuple[int, int] | None = None) -> None:
        self._reference = LumaRows(reference)
        height, width = self.shape = self._reference.shape
        self.stride = stride_for(width, height) if stride is None else stride
        self.is_small = min(width, height) < WINDOW
        # the part of each strip's windows that is the same whatever is compared
        self._own: dict[int, tuple[Plane, Plane]] = {}

    def to(self, other: pyvips.Image | Rows) -> float:
        """Mean SSIM of a picture of the same size, or its luma, 1 where both are equal."""
        return float(self.map_to(other).mean(dtype=np.float64))

    def map_to(self, other: pyvips.Image | Rows) -> Plane:
        """SSIM window by window."""
        others = LumaRows(other) if isinstance(other, pyvips.Image) else other
        if self.is_small:  # as one window: its own mean and variance
            x, y = (rows.between(0, self.shape[0]) for rows in (self._reference, others))
            found = _ssim(x.mean(), y.mean(), (x * x).mean(), (y * y).mean(), (x * y).mean())
            return np.atleast_2d(found).astype(np.float32)
        rows, down = self.shape[0] - WINDOW + 1, self.stride[0]
        step = down * (_STRIP if down < WINDOW else 1)
        strips = [self._strip(others, top, min(top + step, rows)) for top in range(0, rows, step)]
        return np.concatenate(strips)

    def _strip(self, others: Rows, top: int, end: int) -> Plane:
        """The windows that begin in these rows."""
        last = min(end, top + 1 if self.stride[0] >= WINDOW else end) + WINDOW - 1
        x, y = self._reference.between(top, last), others.between(top, last)
        if top not in self._own:
            self._own[top] = _blurred(x, self.stride), _blurred(x * x, self.stride)
        mx, xx = self._own[top]
        my, yy, xy = (_blurred(plane, self.stride) for plane in (y, y * y, x * y))
        found: Plane = _ssim(mx, my, xx, yy, xy)
        return found


class LumaRows:
    """Those of a picture in sRGB."""

    def __init__(self, of: pyvips.Image) -> None:
        self._px = opaque(of)
        self.shape: tuple[int, int] = self._px.shape[:2]

    def between(self, top: int, end: int) -> Plane:
        return _luma(self._px[top:end])


def mean_similarity(x: Plane, y: Plane, blur: Plane) -> float:
    """Mean SSIM of many small planes (number, side, side), whose windows `blur` (windows, side)
    weighs along each side."""
    xx, yy, xy = (blur @ plane @ blur.T for plane in (x * x, y * y, x * y))
    mx, my = (blur @ plane @ blur.T for plane in (x, y))
    return float(_ssim(mx, my, xx, yy, xy).mean(dtype=np.float64))


def _ssim(mx: Any, my: Any, xx: Any, yy: Any, xy: Any) -> Any:
    both = mx * my
    sum_ = mx * mx + my * my
    covariance = xy - both
    variances = (xx + yy) - sum_
    return (2 * both + _C1) * (2 * covariance + _C2) / ((sum_ + _C1) * (variances + _C2))


def _blurred(plane: Plane, stride: tuple[int, int]) -> Plane:
    """Gaussian means of the windows inside, at these distances down and across."""
    below, across = stride
    down = _down(plane.shape[0], below) @ plane
    columns = plane.shape[1] - WINDOW + 1
    half = WINDOW // 2
    out: Plane = down[:, half : half + columns : across] * WEIGHTS[half]
    # the window is the same to both sides
    for k, weight in enumerate(WEIGHTS[:half]):
        other = WINDOW - 1 - k
        pair = down[:, k : k + columns : across] + down[:, other : other + columns : across]
        pair *= weight
        out += pair
    return out


@cache
def _down(rows: int, below: int) -> Plane:
    """What each row counts in the windows that lie `below` px below one another: (windows,
    rows)."""
    tops = range(0, rows - WINDOW + 1, below)
    return np.stack([np.pad(WEIGHTS, (top, rows - WINDOW - top)) for top in tops])
