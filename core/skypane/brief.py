"""What a picture has to look like that does not exist yet: px size, ratio and safe area for given frames (02-rules §3 and §4).

A picture of ratio R that covers a frame of ratio r, centred, shows min(1, r/R) of its width and min(1, R/r) of its height. In
view in every frame are the least of both. Needed px follow from the drawn width, max(W, H·R), in the largest frame.
"""

from __future__ import annotations

import numpy as np

from skypane.fit import Region
from skypane.frames import Floats
from skypane.model import Noun
from skypane.needs import SpanPlan, whole_px


class Brief(Noun):
    """For whoever makes the picture. `safe` are the edges x0, x1, y0, y1 in fractions; sizes are image px at `density`."""

    spans: tuple[str, ...]
    ratio: float
    width_px: int
    height_px: int
    density: float
    safe: tuple[float, float, float, float]
    frame_ratios: tuple[float, float]


def brief(plans: tuple[SpanPlan, ...], density: float = 2, ratio: float | None = None) -> Brief | None:
    """The picture that these spans ask for: those that wait for one, or all that show one where none waits. None where none does.

    Without a wish for the ratio, that of the frames which needs the fewest px is taken.
    """
    shown = [p for p in plans if p.waits] or [p for p in plans if p.effective.show == "picture"]
    if not shown:
        return None
    W = np.concatenate([p.W.ravel() for p in shown])
    H = np.concatenate([p.H.ravel() for p in shown])
    ratios = W / H
    if ratio is None:
        candidates = np.linspace(float(ratios.min()), float(ratios.max()), 65)
        ratio = float(min(candidates, key=lambda r: _drawn(W, H, r) ** 2 / r))
    drawn = _drawn(W, H, ratio)
    width = whole_px(drawn * density)
    across = min(1.0, float((ratios / ratio).min()))
    down = min(1.0, float((ratio / ratios).min()))
    safe = Region((1 - across) / 2, (1 + across) / 2, (1 - down) / 2, (1 + down) / 2)
    return Brief(
        spans=tuple(p.span.letter for p in shown),
        ratio=round(ratio, 4),
        width_px=width,
        height_px=whole_px(width / ratio),
        density=density,
        safe=tuple(round(v, 5) for v in safe),
        frame_ratios=(round(float(ratios.min()), 4), round(float(ratios.max()), 4)),
    )


def _drawn(W: Floats, H: Floats, ratio: float) -> float:
    """The greatest drawn width in CSS px."""
    return float(np.maximum(W, H * ratio).max())


def overlay_svg(width_px: int, height_px: int, safe: Region | tuple[float, float, float, float] | None, caption: str) -> str:
    """An SVG of the picture's size that marks the safe area, to lay over a picture in the making (SVG 2)."""
    import html

    unit = max(width_px, height_px) / 1000
    out = [
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width_px}" height="{height_px}" '
        f'viewBox="0 0 {width_px} {height_px}">',
        f"  <title>{html.escape(caption)}</title>",
    ]
    outer = f"M0 0H{width_px}V{height_px}H0Z"
    hole = ""
    if safe is not None:
        x0, x1, y0, y1 = safe
        left, right = round(x0 * width_px, 1), round(x1 * width_px, 1)
        top, bottom = round(y0 * height_px, 1), round(y1 * height_px, 1)
        hole = f"M{left:g} {top:g}V{bottom:g}H{right:g}V{top:g}Z"
    out.append(f'  <path d="{outer}{hole}" fill="#10181a" fill-opacity="0.55" fill-rule="evenodd"/>')
    if hole:
        out.append(f'  <path d="{hole}" fill="none" stroke="#fff" stroke-width="{2 * unit:g}"/>')
    out.append(
        f'  <text x="{12 * unit:g}" y="{height_px - 12 * unit:g}" font-family="sans-serif" font-size="{18 * unit:g}" '
        f'fill="#fff">{html.escape(caption)}</text>'
    )
    out.append("</svg>")
    return "\n".join(out) + "\n"
