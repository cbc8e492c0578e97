"""Previews: small WebPs of a whole original, or of a crop of it."""

from __future__ import annotations

import math
from collections.abc import Mapping
from pathlib import Path
from typing import Any

import pyvips

from skypane.errors import UnreadablePicture
from skypane.geometry import Rect
from skypane.pixels.cut import to_srgb
from skypane.pixels.load import CannotOpen, kind_of, lacked_memory, open_any


def preview(source: str | Path, path: Path, width_px: int, crop: Rect | None = None) -> None:
    """One preview; see `previews`."""
    previews(source, {width_px: path}, crop)


def previews(source: str | Path, paths: Mapping[int, Path], crop: Rect | None = None) -> None:
    """WebPs of the whole original, or of a crop of it, each at most as many px wide as its key
    says, and narrower where it would be higher than a WebP can be; upright, in sRGB.

    The original is decoded once, for the widest; the narrower ones are made from that. Raises
    UnreadablePicture where the original can no longer be opened.
    """
    widest = max(paths)
    try:
        image = thumbnail(
            source, widest if crop is None else math.ceil(widest / crop.w)
        ).copy_memory()
        if crop is not None:
            x, y = (
                min(int(f * n), n - 1) for f, n in ((crop.x, image.width), (crop.y, image.height))
            )
            w, h = (
                max(1, round(f * n)) for f, n in ((crop.w, image.width), (crop.h, image.height))
            )
            image = image.crop(x, y, min(w, image.width - x), min(h, image.height - y))
        for width_px, path in sorted(paths.items(), reverse=True):
            image = image.thumbnail_image(width_px, **_IN_A_WEBP)
            image.webpsave(str(path), Q=80, effort=2, keep="none")
    except (pyvips.Error, CannotOpen) as error:
        if isinstance(error, pyvips.Error) and lacked_memory(error):
            raise MemoryError from error
        raise UnreadablePicture("The original can no longer be opened. Bring it again.") from error


#: Only ever smaller, and never bound by the height.
_DOWN: dict[str, Any] = {"height": 10_000_000, "size": "down"}
#: Only ever smaller, and no side longer than a WebP's can be: 14 bits (RFC 6386, §9.1).
_IN_A_WEBP: dict[str, Any] = {"height": 16383, "size": "down"}


def thumbnail(source: str | Path, width_px: int) -> pyvips.Image:
    """The whole original, no wider than this and no larger than it is, upright and in sRGB."""
    kind = kind_of(source)
    image = open_any(source, kind)
    if kind in ("heic", "svg"):
        return to_srgb(image).copy_memory().thumbnail_image(width_px, **_DOWN)
    plain = image.interpretation in ("srgb", "b-w") and not image.get_typeof("icc-profile-data")
    return pyvips.Image.thumbnail(
        str(source), width_px, **_DOWN, **({} if plain else {"output_profile": "srgb"})
    )
