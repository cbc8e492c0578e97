"""The safe area as an SVG to lay over a picture in the making (SVG 2)."""

from __future__ import annotations

import html

from skypane.geometry import Rect


def overlay_svg(
    width_px: int,
    height_px: int,
    safe: Rect | None,
    caption: str,
) -> str:
    """An SVG of the picture's size that marks the safe area, to lay over a picture in the making
    (SVG 2)."""
    unit = max(width_px, height_px) / 1000
    out = [
        (
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{width_px}" height="{height_px}" '
            f'viewBox="0 0 {width_px} {height_px}">'
        ),
        f"  <title>{html.escape(caption)}</title>",
    ]
    outer = f"M0 0H{width_px}V{height_px}H0Z"
    hole = ""
    if safe is not None:
        x0, x1, y0, y1 = safe.edges
        left, right = round(x0 * width_px, 1), round(x1 * width_px, 1)
        top, bottom = round(y0 * height_px, 1), round(y1 * height_px, 1)
        hole = f"M{left:g} {top:g}V{bottom:g}H{right:g}V{top:g}Z"
    out.append(
        f'  <path d="{outer}{hole}" fill="#10181a" fill-opacity="0.55" fill-rule="evenodd"/>'
    )
    if hole:
        out.append(f'  <path d="{hole}" fill="none" stroke="#fff" stroke-width="{2 * unit:g}"/>')
    out.append(
        f'  <text x="{12 * unit:g}" y="{height_px - 12 * unit:g}" font-family="sans-serif"'
        f' font-size="{18 * unit:g}" fill="#fff">{html.escape(caption)}</text>'
    )
    out.append("</svg>")
    return "\n".join(out) + "\n"
