"""From an original to the px of a rendition: opened upright in sRGB, cut and resampled in one
operation.

The crop is always taken from the original, never from an earlier rendition, so nothing is resampled
twice.
"""

from __future__ import annotations

from pathlib import Path

import pyvips

from skypane.errors import UnreadablePicture
from skypane.geometry import Crop
from skypane.pixels.load import CannotOpen, lacked_memory, open_any


def open_upright(path: str | Path, shrink: int = 1) -> pyvips.Image:
    """The whole picture decoded into memory once: 8 bit sRGB (with alpha if it has any),
    orientation applied; of a JPEG a `shrink`-th (see `load.open_any`).

    An embedded profile is converted to sRGB; without one the numbers are taken for sRGB. Raises
    UnreadablePicture.
    """
    try:
        return to_srgb(open_any(path, shrink=shrink)).copy_memory().autorot()
    except (pyvips.Error, CannotOpen) as error:
        if isinstance(error, pyvips.Error) and lacked_memory(error):
            raise MemoryError from error
        raise UnreadablePicture("The original can no longer be opened. Bring it again.") from error


def to_srgb(image: pyvips.Image) -> pyvips.Image:
    if image.get_typeof("icc-profile-data"):
        try:
            image = image.icc_transform(
                "srgb", embedded=True, intent="relative", black_point_compensation=True
            )
        except pyvips.Error:
            image = image.colourspace("srgb")
    elif image.interpretation != "srgb":
        image = image.colourspace("srgb")
    if image.format != "uchar":
        image = image.cast("uchar", shift=image.format == "ushort")
    return image


def cut(image: pyvips.Image, crop: Crop, size: tuple[int, int]) -> pyvips.Image:
    """The crop at `size` px, in memory. Enlarging is refused by the plan, not here."""
    part = image.crop(crop.x, crop.y, crop.w, crop.h)
    if size != (crop.w, crop.h):
        alpha = part.hasalpha()
        if alpha:
            part = part.premultiply()
        part = part.resize(size[0] / crop.w, vscale=size[1] / crop.h, kernel="lanczos3")
        if alpha:
            part = part.unpremultiply()
        part = part.cast("uchar")
        if (part.width, part.height) != size:  # rounding inside the resampler
            part = part.embed(0, 0, size[0], size[1], extend="copy")
    return part.copy_memory()
