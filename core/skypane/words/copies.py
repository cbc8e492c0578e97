"""A picture at several sizes, as browsers keep it to draw it smaller."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import NDArray

Bytes = NDArray[np.uint8]


@dataclass(frozen=True, eq=False)
class Copies:
    """A whole original as whole sRGB values with opacity (height, width, 4), and the same halved
    again and again, the largest first. `alpha`: whether something of it can be seen through.
    Compared by identity. The whole one may be kept elsewhere: `larger` then says how wide it is, in
    px, and gives it; it is asked for where it is drawn from."""

    by_width: tuple[Bytes, ...]
    alpha: bool
    larger: tuple[int, Callable[[], Bytes]] | None = None
    # of the file that is drawn, were it the whole original's; None where it is not known
    file_width: int | None = None

    def for_drawing(self, width: float, usual: float) -> Bytes:
        """The copy that is most like what a browser draws from, in px: of a file of one width that
        is drawn at another, halved as often as it stays at least as large as it is drawn. `usual`
        is taken for the file's width where that is not known. The largest copy where none is large
        enough."""
        file_width = self.file_width or usual
        halvings = max(0, math.floor(math.log2(max(file_width / width, 1.0)) + 1e-9))
        like = max(file_width / 2**halvings, width)
        there = {c.shape[1]: c for c in reversed(self.by_width)}
        widths = [*there, *([self.larger[0]] if self.larger else [])]
        fitting = [w for w in widths if w >= width - 0.5]
        best = min(fitting, key=lambda w: abs(math.log(w / like))) if fitting else max(widths)
        return self.larger[1]() if self.larger and best == self.larger[0] else there[best]


def copies(pixels: Bytes) -> Copies:
    """Copies of whole sRGB values, (height, width, 3 or 4), each half as wide as the one before by
    the mean of four px, as long as something is left."""
    out = [with_opacity(pixels)]
    while min(out[-1].shape[:2]) >= 64:
        out.append(_halved(out[-1]))
    return Copies(tuple(out), pixels.shape[2] == 4)


def with_opacity(pixels: Bytes) -> Bytes:
    """Whole sRGB values, (height, width, 3 or 4), with opacity as a fourth."""
    h, w, bands = pixels.shape
    whole = np.full((h, w, 4), 255, np.uint8)
    whole[..., :bands] = pixels
    return whole


#: Two of the four values of a px, as the low halves of two numbers of 16 bits.
_TWO = np.uint32(0x00FF00FF)
_ONES = np.uint32(0x00010001)


def _halved(px: Bytes) -> Bytes:
    """The mean of each four px, halves to the even, so that nothing gets lighter with every
    halving. The four values of a px are worked with as two pairs at once."""
    h, w = px.shape[0] // 2 * 2, px.shape[1] // 2 * 2
    packed = np.ascontiguousarray(px[:h, :w]).view(np.uint32)[..., 0]

    def mean(pairs: NDArray[Any]) -> NDArray[np.uint32]:
        rows = pairs[0::2] + pairs[1::2]
        four = rows[:, 0::2] + rows[:, 1::2]
        out: NDArray[np.uint32] = ((four + _ONES + ((four >> 2) & _ONES)) >> 2) & _TWO
        return out

    even, odd = mean(packed & _TWO), mean((packed >> 8) & _TWO)
    return np.ascontiguousarray(even | (odd << 8)).view(np.uint8).reshape(h // 2, w // 2, 4)
