"""The lossless resample of a rendition, and where a rendition differs from it."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pyvips

from skypane.geometry import Crop
from skypane.pixels.cut import cut, open_upright
from skypane.pixels.likeness import Likeness
from skypane.pixels.load import open_any

#: SSIM at which a place counts as lost altogether in the map (by eye, on the demo's photographs).
LOST_SSIM = 0.5
#: The colour of differences in the map, in sRGB.
MARK = (194, 69, 60)


def write_resample(
    source: str | Path, crop: Crop, size: tuple[int, int], target: str | Path
) -> None:
    """What the files of one px size are held against, as PNG."""
    image = cut(open_upright(source), crop, size)
    image.pngsave(str(target), compression=3, keep="none")


def write_difference(resample: str | Path, rendition: str | Path, target: str | Path) -> float:
    """A transparent PNG of the same size, opaque where the two differ, and the mean SSIM."""
    reference = open_any(resample)
    found = Likeness(reference.copy_memory(), stride=(1, 1))
    ssim = found.map_to(open_any(rendition).copy_memory())
    strength = np.clip((1 - ssim) / (1 - LOST_SSIM), 0, 1)
    alpha = np.zeros((reference.height, reference.width), np.uint8)
    top, left = ((a - b) // 2 for a, b in zip(alpha.shape, ssim.shape, strict=True))
    alpha[top : top + ssim.shape[0], left : left + ssim.shape[1]] = strength * 255
    plane = pyvips.Image.new_from_memory(
        alpha.tobytes(), reference.width, reference.height, 1, "uchar"
    )
    colour = pyvips.Image.black(reference.width, reference.height, bands=3) + list(MARK)
    image = colour.cast("uchar").bandjoin(plane).copy(interpretation="srgb")
    image.pngsave(str(target), compression=6, keep="none")
    return float(ssim.mean())
