"""A picture in a few px (see `skypane.model.tiny`)."""

from __future__ import annotations

import math
from pathlib import Path

import pyvips

from skypane.errors import UnreadablePicture
from skypane.model.tiny import MOST_TINY_PX, Tiny
from skypane.pixels.load import CannotOpen, lacked_memory
from skypane.pixels.previews import thumbnail


def tiny_of(path: str | Path) -> Tiny:
    """The px of a whole picture, upright and in sRGB, at most `MOST_TINY_PX` of them; what can be
    seen through lies on white. Raises UnreadablePicture where it cannot be opened."""
    try:
        image = thumbnail(path, MOST_TINY_PX)
        if image.hasalpha():
            image = image.flatten(background=255)
        image = image.colourspace("srgb")[:3].cast("uchar")
        h = max(1, min(MOST_TINY_PX, round(math.sqrt(MOST_TINY_PX * image.height / image.width))))
        w = max(1, MOST_TINY_PX // h)
        scaled = image.thumbnail_image(w, height=h, size="force")
        return Tiny.of(w, bytes(scaled.write_to_memory()))
    except (pyvips.Error, CannotOpen) as error:
        if isinstance(error, pyvips.Error) and lacked_memory(error):
            raise MemoryError from error
        raise UnreadablePicture("The original can no longer be opened. Bring it again.") from error
