"""Transparent edges cut away: the smallest rectangle with everything that can be seen, grown to an
even size.

Sizes that have to halve to a whole px are even (rules §3).
"""

from __future__ import annotations

from pathlib import Path

from skypane.errors import InvalidPlan
from skypane.geometry import Crop
from skypane.pixels.load import open_any


def visible_box(path: str | Path) -> Crop:
    """The rectangle around every px that is not wholly transparent, upright, in image px and of
    even size.

    Raises InvalidPlan where there is nothing to trim.
    """
    image = open_any(path).autorot().copy_memory()
    if not image.hasalpha():
        raise InvalidPlan("The picture has no transparency, so it has no transparent edges.")
    left, top, width, height = (
        int(v) for v in image[image.bands - 1].find_trim(threshold=0, background=[0])
    )
    if not width or not height:
        raise InvalidPlan("The whole picture is transparent: nothing would be left.")
    left, width = _even(left, width, image.width)
    top, height = _even(top, height, image.height)
    if (width, height) == (image.width, image.height):
        raise InvalidPlan("There are no transparent edges: something can be seen at every side.")
    return Crop(x=left, y=top, w=width, h=height)


def _even(first: int, length: int, room: int) -> tuple[int, int]:
    """Grown by one px where the length is odd, to the side that has one."""
    if length % 2 == 0 or length == room:
        return first, length
    return (first, length + 1) if first + length < room else (first - 1, length + 1)


def write_trimmed(path: str | Path, box: Crop, target: Path) -> None:
    """The box of the picture as a PNG that keeps all its px, depth and profile."""
    image = open_any(path).autorot().copy_memory().crop(box.x, box.y, box.w, box.h)
    odd = (box.w % 2, box.h % 2)
    if any(odd):  # as wide or high as the picture itself, and odd
        image = image.embed(
            0, 0, box.w + odd[0], box.h + odd[1], extend="background", background=[0] * image.bands
        )
    image.pngsave(str(target), compression=6, keep="icc")
