"""The luma that a file carries, without a detour over red, green and blue, which takes two to three
times as long as decoding itself."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
from numpy.typing import NDArray

from skypane.pixels.likeness import LUMA

#: Black and white of Y in the range that WebP has (RFC 6386, §9.2).
_BLACK, _WHITE = 16, 235
#: Luma of ITU-R BT.601 from Y'CbCr of BT.709, less Y': from both matrices.
_OF_CB, _OF_CR = 0.1016, 0.1961
#: Below this Y of BT.709 colours are cut off at black one by one.
_DARK = 24
#: In the numbers of ITU-T H.273 and of libavutil: full range, the matrix of BT.709.
_FULL, _BT709 = 2, 1


def coded_luma(data: bytes) -> NDArray[Any]:
    """Y' of ITU-R BT.601 of a JPEG, a WebP without transparency or an AVIF as 4:2:0, 0…255."""
    import av

    with av.open(io.BytesIO(data), "r") as container:
        stream: Any = container.streams.video[0]
        stream.thread_type = "NONE"
        frame: Any = next(container.decode(stream))
        planes = [_rows(plane) for plane in frame.planes]
        y = planes[0][: frame.height, : frame.width]
        if frame.color_range != _FULL and not frame.format.name.startswith(("yuvj", "gray")):
            # every value there is, once
            full = (np.arange(256, dtype=np.float32) - _BLACK) * np.float32(255 / (_WHITE - _BLACK))
            return full[y]
        if frame.colorspace != _BT709 or len(planes) < 3:
            return y.copy()
        return _of_709(y, planes[1], planes[2])


def _of_709(y: NDArray[np.uint8], cb: NDArray[np.uint8], cr: NDArray[np.uint8]) -> NDArray[Any]:
    """Luma of BT.601 from the planes of BT.709; four px share one colour."""
    of_cb, of_cr = (
        ((np.arange(256) - 128) * share).astype(np.float32) for share in (_OF_CB, _OF_CR)
    )
    shift = of_cb[cb] + of_cr[cr]
    found = y.astype(np.float32)
    for row in (0, 1):
        for column in (0, 1):
            part = found[row::2, column::2]
            part += shift[: part.shape[0], : part.shape[1]]
    # near black a screen shows nothing darker than black, and SSIM tells one level from the next
    dark = np.nonzero(y < _DARK)
    d, b, r = (plane.astype(np.float32) for plane in _at(dark, y, cb, cr))
    rgb = d + 1.5748 * r, d - 0.1873 * b - 0.4681 * r, d + 1.8556 * b
    found[dark] = sum(share * np.clip(band, 0, 255) for share, band in zip(LUMA, rgb, strict=True))
    return found


def _at(
    places: tuple[NDArray[np.intp], ...],
    y: NDArray[np.uint8],
    cb: NDArray[np.uint8],
    cr: NDArray[np.uint8],
) -> tuple[NDArray[Any], ...]:
    """Y, and Cb and Cr about zero, of some px."""
    rows, columns = places
    half = rows // 2, columns // 2
    return y[places], cb[half].astype(np.int16) - 128, cr[half].astype(np.int16) - 128


def _rows(plane: Any) -> NDArray[np.uint8]:
    rows = np.frombuffer(plane, np.uint8).reshape(-1, plane.line_size)
    found: NDArray[np.uint8] = rows[: plane.height, : plane.width]
    return found
