"""The luma that a file carries, without a detour over red, green and blue, which takes two to three
times as long as decoding itself; and of the rows alone that are looked at."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
from numpy.typing import NDArray

from skypane.pixels.likeness import LUMA, Plane

#: Black and white of Y in the range that WebP has, and what its colours are short of full range
#: (RFC 6386, §9.2; ITU-R BT.601).
_BLACK, _WHITE = 16, 235
_OF_COLOURS = 255 / 224
#: In full range, of every value there is.
_FULL_OF = (np.arange(256, dtype=np.float32) - _BLACK) * np.float32(255 / (_WHITE - _BLACK))
#: Luma of ITU-R BT.601 from Y'CbCr of BT.709, less Y': from both matrices, of every value there is.
_OF_CB, _OF_CR = (((np.arange(256) - 128) * s).astype(np.float32) for s in (0.1016, 0.1961))
#: From Cb and Cr to red, green and green, blue (ITU-R BT.601 and BT.709).
_BT601_RGB, _BT709_RGB = (1.402, 0.3441, 0.7141, 1.772), (1.5748, 0.1873, 0.4681, 1.8556)
#: Below this Y' colours are cut off at black one by one: a screen shows nothing darker, and SSIM
#: tells one level there from the next.
_DARK = 24
#: In the numbers of ITU-T H.273 and of libavutil: full range, the matrix of BT.709.
_FULL, _BT709 = 2, 1


class CodedLuma:
    """Y' of ITU-R BT.601 of a WebP without transparency, or of an AVIF as `avif` makes it, 0…255,
    row by row as it is asked for. Both are 4:2:0."""

    def __init__(self, data: bytes) -> None:
        import av

        with av.open(io.BytesIO(data), "r") as container:
            stream: Any = container.streams.video[0]
            stream.thread_type = "NONE"
            frame: Any = next(container.decode(stream))
        self._y, self._cb, self._cr = (_rows(plane) for plane in list(frame.planes)[:3])
        self.shape: tuple[int, int] = self._y.shape
        self._is_full = frame.color_range == _FULL
        self._is_709 = frame.colorspace == _BT709

    def between(self, top: int, end: int) -> Plane:
        """Rows from `top` up to `end`."""
        even = top - top % 2
        y = self._y[even:end]
        cb, cr = (plane[even // 2 : (end + 1) // 2] for plane in (self._cb, self._cr))
        full = y.astype(np.float32) if self._is_full else _FULL_OF[y]
        found = _of_709(full, cb, cr) if self._is_709 else full
        dark = np.nonzero(y < _DARK)
        if len(dark[0]):
            place = dark[0] // 2, dark[1] // 2
            of_cb, of_cr = (plane[place].astype(np.float32) - 128 for plane in (cb, cr))
            found[dark] = self._seen(full[dark], of_cb, of_cr)
        return found[top - even :]

    def _seen(self, y: Plane, of_cb: Plane, of_cr: Plane) -> Plane:
        """Whole sRGB values of some px, as a screen shows their luma and colour differences."""
        red, green_cb, green_cr, blue = _BT709_RGB if self._is_709 else _BT601_RGB
        if not self._is_full:
            of_cb, of_cr = (plane * np.float32(_OF_COLOURS) for plane in (of_cb, of_cr))
        rgb = y + red * of_cr, y - green_cb * of_cb - green_cr * of_cr, y + blue * of_cb
        levels = [
            share * np.rint(np.clip(band, 0, 255)) for share, band in zip(LUMA, rgb, strict=True)
        ]
        found: Plane = np.sum(levels, axis=0, dtype=np.float32)
        return found


def _of_709(y: Plane, cb: NDArray[np.uint8], cr: NDArray[np.uint8]) -> Plane:
    """Luma of BT.601 from the planes of BT.709; four px share one colour."""
    shift = _OF_CB[cb] + _OF_CR[cr]
    found = y.copy()
    for row in (0, 1):
        for column in (0, 1):
            part = found[row::2, column::2]
            part += shift[: part.shape[0], : part.shape[1]]
    return found


def _rows(plane: Any) -> NDArray[np.uint8]:
    rows = np.frombuffer(plane, np.uint8).reshape(-1, plane.line_size)
    found: NDArray[np.uint8] = rows[: plane.height, : plane.width]
    return found
