"""Pictures whose colours tell where on the picture a px is, and reading them back from
screenshots."""

from __future__ import annotations

import io
from typing import Any

import numpy as np
from PIL import Image
from playwright.sync_api import Error, Page


def coordinate_ramp(width: int, height: int, mirrored: bool = False) -> bytes:
    """Red grows with x and green with y, from 10 to 245 so that nothing is clipped; mirrored, they
    fall."""
    # at the middle of each px
    x = (10 + 235 * (np.arange(width) + 0.5) / width)[None, :].repeat(height, 0)
    y = (10 + 235 * (np.arange(height) + 0.5) / height)[:, None].repeat(width, 1)
    if mirrored:
        x, y = 255 - x, 255 - y
    return png(np.stack([x, y, np.full_like(x, 128)], axis=-1).round())


def png(pixels: np.ndarray) -> bytes:
    out = io.BytesIO()
    Image.fromarray(pixels.astype("uint8")).save(out, "PNG")
    return out.getvalue()


def pixels_of(shot: bytes) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(shot)).convert("RGB")).astype(float)


def both_ways(rising: np.ndarray, falling: np.ndarray) -> np.ndarray:
    """The mean of a ramp and its mirror image, in which the browser's rounding down of levels
    cancels out."""
    out = rising.copy()
    out[:, :, :2] = (rising[:, :, :2] + 255 - falling[:, :, :2]) / 2
    return out


def seen_window(shot: np.ndarray) -> tuple[float, float, float, float]:
    """(x0, x1, y0, y1) in fractions of the picture: a line through all px gives the edges finer
    than one level."""

    def edges(levels: np.ndarray) -> tuple[float, float]:
        n = len(levels)
        slope, start = np.polyfit(np.arange(n) + 0.5, levels, 1)
        return (start - 10) / 235, (start + slope * n - 10) / 235

    return (*edges(shot[:, :, 0].mean(axis=0)), *edges(shot[:, :, 1].mean(axis=1)))


def captured(page: Page, **how: Any) -> bytes:
    """A screenshot. Chromium without a screen now and then cannot take one, and can a moment
    later."""
    try:
        return page.screenshot(**how)
    except Error as error:
        if "Unable to capture screenshot" not in str(error):
            raise
        page.wait_for_timeout(500)
        return page.screenshot(**how)
