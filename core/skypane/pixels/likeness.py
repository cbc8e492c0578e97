"""How like one picture is to another: structural similarity (Wang, Bovik, Sheikh and Simoncelli,
Image Quality Assessment: From Error Visibility to Structural Similarity, IEEE Transactions on Image
Processing 13, 2004), of luma, with the paper's window: Gaussian, 11 × 11, σ 1.5.

Only windows that lie wholly inside the picture count. Of large pictures a fixed grid of windows is
looked at, at an odd distance, so that it does not fall in step with the blocks of a codec.
"""

from __future__ import annotations

import math
from typing import Any

import numpy as np
import pyvips
from numpy.typing import NDArray

Plane = NDArray[np.float32]

WINDOW = 11
SIGMA = 1.5
#: So many windows say the mean to within 0.0005 (measured on the demo's photographs).
WINDOWS = 160_000
_C1, _C2 = np.float32((0.01 * 255) ** 2), np.float32((0.03 * 255) ** 2)
_OFFSETS = np.arange(WINDOW) - WINDOW // 2
_GAUSS = np.exp(-0.5 * (_OFFSETS / SIGMA) ** 2)
_WEIGHTS = (_GAUSS / _GAUSS.sum()).astype(np.float32)


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
    plane = px[..., 0] * np.float32(0.299)
    plane += px[..., 1] * np.float32(0.587)
    plane += px[..., 2] * np.float32(0.114)
    return plane


def stride_for(width: int, height: int) -> int:
    """The distance of the windows that are looked at, in px; odd."""
    return max(1, int(math.sqrt(width * height / WINDOWS))) | 1


#: Rows of windows that are worked out together, so that large pictures take little memory.
_STRIP = 24


class Likeness:
    """A picture that others are compared with."""

    def __init__(self, reference: pyvips.Image, *, stride: int | None = None) -> None:
        px = opaque(reference)
        height, width = self.shape = px.shape[:2]
        self.stride = stride_for(width, height) if stride is None else stride
        self.is_small = min(width, height) < WINDOW
        self._luma = np.empty((height, width), np.float32)
        for top in range(0, height, 64):
            self._luma[top : top + 64] = _luma(px[top : top + 64])
        # the part of each strip's windows that is the same whatever is compared
        self._own: dict[int, tuple[Plane, Plane]] = {}

    def to(self, image: pyvips.Image) -> float:
        """Mean SSIM of a picture of the same size, 1 where both are equal."""
        return float(self.map_to(image).mean(dtype=np.float64))

    def map_to(self, image: pyvips.Image) -> Plane:
        """SSIM window by window."""
        other = opaque(image)
        if self.is_small:  # as one window: its own mean and variance
            x, y = self._luma, _luma(other)
            found = _ssim(x.mean(), y.mean(), (x * x).mean(), (y * y).mean(), (x * y).mean())
            return np.atleast_2d(found).astype(np.float32)
        rows = self.shape[0] - WINDOW + 1
        step = self.stride * _STRIP
        strips = [self._strip(other, top, min(top + step, rows)) for top in range(0, rows, step)]
        return np.concatenate(strips)

    def _strip(self, other: NDArray[Any], top: int, end: int) -> Plane:
        """The windows that begin in these rows."""
        last, s = end + WINDOW - 1, self.stride
        x, y = self._luma[top:last], _luma(other[top:last])
        if top not in self._own:
            self._own[top] = _blurred(x, s), _blurred(x * x, s)
        mx, xx = self._own[top]
        found: Plane = _ssim(mx, _blurred(y, s), xx, _blurred(y * y, s), _blurred(x * y, s))
        return found


def _ssim(mx: Any, my: Any, xx: Any, yy: Any, xy: Any) -> Any:
    both = mx * my
    sum_ = mx * mx + my * my
    covariance = xy - both
    variances = (xx + yy) - sum_
    return (2 * both + _C1) * (2 * covariance + _C2) / ((sum_ + _C1) * (variances + _C2))


def _blurred(plane: Plane, stride: int) -> Plane:
    """Gaussian means of the windows inside, every `stride` px."""
    height, width = plane.shape
    rows, columns = (n - WINDOW + 1 for n in (height, width))
    down = np.zeros((-(-rows // stride), width), np.float32)
    for k, weight in enumerate(_WEIGHTS):
        down += plane[k : k + rows : stride] * weight
    out = np.zeros((down.shape[0], -(-columns // stride)), np.float32)
    for k, weight in enumerate(_WEIGHTS):
        out += down[:, k : k + columns : stride] * weight
    return out
