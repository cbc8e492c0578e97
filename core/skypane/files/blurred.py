"""What is seen of a picture until its file is there: a few px of it inside the style sheet, which
the browser draws as large as the picture and so blurs (PNG, third edition; RFC 2397 `data:`)."""

from __future__ import annotations

import base64
import math
import struct
import zlib

import numpy as np

from skypane.geometry import Rect
from skypane.model import Original
from skypane.model.medium import MEDIA
from skypane.model.tiny import Tiny
from skypane.values import once

#: No more than this of a style sheet is such a picture, as it stands there, in bytes.
MOST_BYTES = 600
#: So many px are tried first.
_MOST_PX = 96


def may_be_blurred(original: Original) -> bool:
    """Whether something of it can lie behind it: one that can be seen through would show it for
    good, and a drawing is there as soon."""
    return not original.alpha and MEDIA[original.medium].has_px and original.tiny is not None


def blurred_url(original: Original, rect: Rect) -> str | None:
    """A rectangle of an original as an address that holds its px, of at most `MOST_BYTES`; None
    where there is none to be had."""
    return _url(original, rect) if may_be_blurred(original) else None


@once
def _url(original: Original, rect: Rect) -> str:
    assert original.tiny is not None
    ratio = rect.w * original.width_px / (rect.h * original.height_px)
    n = _MOST_PX
    while True:
        url = _written(original.tiny, rect, *_size(ratio, n))
        if len(url) <= MOST_BYTES:
            return url
        n -= 8


def _size(ratio: float, n: int) -> tuple[int, int]:
    """At most n px of a ratio."""
    h = min(n, max(1, round(math.sqrt(n / ratio))))
    return max(1, min(n // h, round(h * ratio))), h


def _written(tiny: Tiny, rect: Rect, w: int, h: int) -> str:
    px = np.frombuffer(tiny.rgb, dtype=np.uint8).reshape(tiny.height_px, tiny.width_px, 3)
    x = rect.x + (np.arange(w) + 0.5) / w * rect.w
    y = rect.y + (np.arange(h) + 0.5) / h * rect.h
    rows = _between(px.astype(float), y)
    found = _between(rows.swapaxes(0, 1), x).swapaxes(0, 1)
    data = base64.b64encode(_png(np.rint(found).astype(np.uint8))).decode()
    return f"data:image/png;base64,{data}"


def _between(px: np.ndarray, at: np.ndarray) -> np.ndarray:
    """Rows at fractions of the height, between the middles of those that are there."""
    place = np.clip(at * len(px) - 0.5, 0, len(px) - 1)
    low = np.floor(place).astype(int)
    high = np.minimum(low + 1, len(px) - 1)
    share = (place - low)[:, None, None]
    blended: np.ndarray = px[low] * (1 - share) + px[high] * share
    return blended


def _png(px: np.ndarray) -> bytes:
    """Px as a PNG of 8-bit RGB, without filters (PNG §11.2)."""
    h, w = px.shape[:2]
    raw = b"".join(b"\0" + row.tobytes() for row in px)
    chunks = (
        (b"IHDR", struct.pack(">IIBBBBB", w, h, 8, 2, 0, 0, 0)),
        (b"IDAT", zlib.compress(raw, 9)),
        (b"IEND", b""),
    )
    return b"\x89PNG\r\n\x1a\n" + b"".join(
        struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))
        for name, data in chunks
    )


def part_of(crop: Rect, cut: Rect) -> Rect:
    """A part `cut` of a crop, in fractions of the original."""
    return Rect.between(
        crop.x + cut.x * crop.w,
        min(1.0, crop.x + cut.x1 * crop.w),
        crop.y + cut.y * crop.h,
        min(1.0, crop.y + cut.y1 * crop.h),
    )
