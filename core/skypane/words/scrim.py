"""Layers of see-through colour (CSS Images 3 §3.4 linear gradients; Compositing and Blending 1,
simple alpha compositing), in whole sRGB values as browsers paint them."""

from __future__ import annotations

import math
from collections.abc import Sequence

import numpy as np

from skypane.model import NoScrim, PlainScrim, Scrim, Stop
from skypane.numerals import number
from skypane.widths.frames import Floats
from skypane.words.block import channels, rgb


def repaired(stops: Sequence[Stop]) -> tuple[tuple[float, Stop], ...]:
    """Where each stop is, as a fraction; one that is before its forerunner is moved up to it (CSS
    Images 3 §3.4.3)."""
    out, furthest = [], 0.0
    for stop in stops:
        furthest = max(furthest, stop.at / 100)
        out.append((furthest, stop))
    return tuple(out)


def painted(
    scrim: Scrim, strength: float, x: Floats, y: Floats, W: Floats | float, H: Floats | float
) -> tuple[Floats, Floats] | None:
    """The scrim at points of a frame W × H, all in CSS px: colour times opacity (…, 3), 0 to 255,
    and opacity (…). None where there is none."""
    if isinstance(scrim, NoScrim) or strength <= 0:
        return None
    if isinstance(scrim, PlainScrim):
        colour = np.array(channels(scrim.colour)) * strength
        return np.broadcast_to(colour, (*x.shape, 3)), np.broadcast_to(strength, x.shape)
    angle = math.radians(scrim.angle)
    along, up = math.sin(angle), math.cos(angle)
    length = np.abs(W * along) + np.abs(H * up)
    t = ((x - W / 2) * along - (y - H / 2) * up) / length + 0.5
    where = repaired(scrim.stops)
    at = [a for a, _ in where]

    def between(values: list[float]) -> Floats:
        found: Floats = np.interp(t, at, values).astype(np.float32)
        return found * np.float32(strength)

    alpha = between([s.alpha for _, s in where])
    colours = [channels(s.colour) for _, s in where]
    if len(set(colours)) == 1:
        return alpha[..., None] * np.array(colours[0], np.float32), alpha
    # interpolated with the colours already multiplied by their opacity (§3.4.2)
    bands = [[c[i] * s.alpha for c, (_, s) in zip(colours, where, strict=True)] for i in range(3)]
    return np.stack([between(band) for band in bands], axis=-1), alpha


def over(below: np.ndarray, colour: Floats, alpha: Floats) -> Floats:
    """Premultiplied colours laid over sRGB values, 0 to 255."""
    out: Floats = below * (1 - alpha)[..., None]
    out += colour
    return out


def painted_over(below: np.ndarray, colour: Floats, alpha: float) -> Floats:
    """One colour, premultiplied, laid over sRGB values in the whole values that Chromium paints:
    the colour rounded, what shines through it cut (docs/chromium.md, §9)."""
    out: Floats = np.rint(colour) + np.floor(below * (1 - alpha) + 1e-6)
    return out


def css(scrim: Scrim, strength: float) -> str:
    """The scrim as `background`; "none" where there is none."""
    if isinstance(scrim, NoScrim) or strength <= 0:
        return "none"
    if isinstance(scrim, PlainScrim):
        return rgb(scrim.colour, strength)
    stops = ", ".join(f"{_rgba(s, strength)} {number(s.at)}%" for s in scrim.stops)
    return f"linear-gradient({number(scrim.angle)}deg, {stops})"


def _rgba(stop: Stop, strength: float) -> str:
    r, g, b = channels(stop.colour)
    return f"rgb({r} {g} {b} / {number(round(stop.alpha * strength, 4))})"
