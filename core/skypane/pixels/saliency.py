"""Where a look falls first: a focal point and keep areas to be offered, never taken unasked.

Spectral residual (Hou and Zhang, Saliency Detection: A Spectral Residual Approach, CVPR 2007): what
the log spectrum of a small grey picture has beyond its own local mean is what stands out. With the
paper's width of 64 px, its 3 × 3 mean and its threshold of three times the mean saliency; the
smoothing is 3 px here, so that small things keep their place.
"""

from __future__ import annotations

from pathlib import Path
from typing import NamedTuple

import numpy as np

from skypane.geometry import Rect
from skypane.pixels.cut import to_srgb
from skypane.pixels.load import open_any
from skypane.widths.frames import Floats

MAP_PX = 64
SMOOTH_PX = 3.0
THRESHOLD = 3.0
MOST_AREAS = 3
#: A region has to hold this share of all that stands out to be worth an area.
LEAST_SHARE = 0.12


class Suggestion(NamedTuple):
    """All in fractions of the picture; areas the most salient first."""

    focal: tuple[float, float]
    areas: tuple[Rect, ...]


def saliency_map(grey: Floats) -> Floats:
    """Saliency of a small grey picture, of its own shape, with a mean of 1."""
    from scipy import ndimage  # a fifth of a second, in the children that need it alone

    spectrum = np.fft.fft2(grey)
    log = np.log(np.abs(spectrum) + 1e-9)
    residual = log - ndimage.uniform_filter(log, 3, mode="wrap")
    back = np.abs(np.fft.ifft2(np.exp(residual + 1j * np.angle(spectrum)))) ** 2
    smooth: Floats = ndimage.gaussian_filter(back, SMOOTH_PX)
    return smooth / max(float(smooth.mean()), 1e-12)


def suggest(path: str | Path) -> Suggestion:
    """What to offer for one picture. A picture in which nothing stands out gets its middle and no
    areas."""
    from scipy import ndimage

    image = to_srgb(open_any(path)).copy_memory().autorot()
    if image.hasalpha():
        image = image.flatten(background=[128, 128, 128])
    small = image.thumbnail_image(MAP_PX, height=MAP_PX, size="force").colourspace("b-w")
    grey = small.numpy().astype(np.float64).reshape(MAP_PX, MAP_PX)
    if np.ptp(grey) < 2:
        return Suggestion((0.5, 0.5), ())
    found = saliency_map(grey)
    labels, count = ndimage.label(found > THRESHOLD)
    regions = []
    for i in range(1, count + 1):
        inside = labels == i
        rows, columns = np.flatnonzero(inside.any(axis=1)), np.flatnonzero(inside.any(axis=0))
        regions.append(
            (float(found[inside].sum()), rows[0], rows[-1] + 1, columns[0], columns[-1] + 1, inside)
        )
    if not regions:
        y, x = np.unravel_index(int(found.argmax()), found.shape)
        return Suggestion((float(x + 0.5) / MAP_PX, float(y + 0.5) / MAP_PX), ())
    regions.sort(key=lambda r: -r[0])
    total = sum(r[0] for r in regions)
    y, x = ndimage.center_of_mass(np.where(regions[0][5], found, 0))
    areas = tuple(
        Rect(x=x0 / MAP_PX, y=y0 / MAP_PX, w=(x1 - x0) / MAP_PX, h=(y1 - y0) / MAP_PX)
        for mass, y0, y1, x0, x1, _ in regions[:MOST_AREAS]
        if mass >= LEAST_SHARE * total
    )
    return Suggestion((round(float(x + 0.5) / MAP_PX, 4), round(float(y + 0.5) / MAP_PX, 4)), areas)
