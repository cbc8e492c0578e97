"""Pictures of our own as PNG: the safe area, transparent, to lay over a picture in any program, and
stand-ins."""

from __future__ import annotations

import pyvips

from skypane.geometry import Rect

SHADE = (16, 24, 26, 140)
LINE = (255, 255, 255, 255)


def overlay_png(width_px: int, height_px: int, safe: Rect | None) -> bytes:
    """Shaded where something may be out of view, clear inside the safe area, which has a white line
    around it."""
    image = pyvips.Image.black(width_px, height_px, bands=4).cast("uchar") + list(SHADE)
    image = image.cast("uchar").copy(interpretation="srgb")
    if safe is not None:
        x0, x1, y0, y1 = safe.edges
        left, top = round(x0 * width_px), round(y0 * height_px)
        w, h = max(1, round(x1 * width_px) - left), max(1, round(y1 * height_px) - top)
        line = max(1, round(max(width_px, height_px) / 500))
        image = image.draw_rect(list(LINE), left, top, w, h, fill=True)
        if w > 2 * line and h > 2 * line:
            image = image.draw_rect(
                [0, 0, 0, 0], left + line, top + line, w - 2 * line, h - 2 * line, fill=True
            )
    data: bytes = image.pngsave_buffer(compression=9, keep="none")
    return data


def drawn_png(svg: str) -> bytes:
    """One of our own SVGs as a PNG of its size, in as few colours as it has."""
    image = pyvips.Image.svgload_buffer(svg.encode()).flatten(background=[255, 255, 255])
    data: bytes = image.pngsave_buffer(compression=9, palette=True, Q=100, keep="none")
    return data
