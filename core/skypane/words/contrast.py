"""Whether text can be read on what lies under it (WCAG 2.2, 1.4.3 and its definitions of contrast
ratio and relative luminance)."""

from __future__ import annotations

from collections.abc import Callable
from typing import NamedTuple

import numpy as np

from skypane.widths.frames import Floats

#: Least contrast of text, and of large text (24 px, or 18.66 px bold).
ENOUGH, ENOUGH_LARGE = 4.5, 3.0
#: Of the px under a text so many are passed over: the ratio that the others reach counts.
WORST_SHARE = 20  # one in twenty

#: How finely linear light is looked up between two whole sRGB values.
_FINE = 16


def linear(values: Floats) -> Floats:
    """Linear light of sRGB values 0 to 255. The standard's threshold of 0.03928 and the later
    0.04045 give the same for whole values."""
    c = np.asarray(values, dtype=np.float64) / 255
    return np.where(c <= 0.04045, c / 12.92, ((c + 0.055) / 1.055) ** 2.4)


_WEIGHTS = (0.2126, 0.7152, 0.0722)
#: What red, green and blue add to luminance, of fine values and of whole ones.
_ADDED = [weight * linear(np.arange(255 * _FINE + 1) / _FINE) for weight in _WEIGHTS]
_ADDED_WHOLE = [np.ascontiguousarray(added[::_FINE]) for added in _ADDED]


def luminance(rgb: np.ndarray) -> Floats:
    """Relative luminance of sRGB values 0 to 255 along the last axis, whole or not; looked up to a
    thirty-second of a level."""
    added, at = _ADDED_WHOLE, rgb
    if rgb.dtype != np.uint8:
        added, at = _ADDED, (rgb * np.float32(_FINE) + np.float32(0.5)).astype(np.intp)
    r, g, b = (values.take(at[..., i]) for i, values in enumerate(added))
    r += g
    r += b
    found: Floats = r
    return found


def exact_luminance(rgb: Floats) -> Floats:
    """Relative luminance by the formula itself (WCAG 2.2, "relative luminance"), of sRGB values
    in 0–255, (…, 3)."""
    found: Floats = linear(rgb) @ np.array(_WEIGHTS)
    return found


def ratio(a: Floats | float, b: Floats | float) -> Floats:
    """Contrast ratio of two luminances, 1 to 21, whichever is the lighter."""
    lighter, darker = np.maximum(a, b), np.minimum(a, b)
    out: Floats = (lighter + 0.05) / (darker + 0.05)
    return out


def ratio_of(a: str, b: str) -> float:
    """Contrast ratio of two colours #rrggbb."""
    return float(ratio(luminance_of(a), luminance_of(b)))


def luminance_of(colour: str) -> float:
    return float(exact_luminance(np.array([int(colour[i : i + 2], 16) for i in (1, 3, 5)])))


def is_large(size_px: float, weight: float) -> bool:
    """Large text as WCAG 2.2 has it: 24 px, or 18.66 px bold (18 and 14 pt)."""
    return size_px >= 24 or (size_px >= 18.66 and weight >= 700)


def needed(large: bool) -> float:
    return ENOUGH_LARGE if large else ENOUGH


class Contrast(NamedTuple):
    """`worst`: the greatest ratio that at least 95 % of the px reach; `mean` of all ratios. Arrays
    of whatever shape the px had, less their axis."""

    worst: Floats
    mean: Floats


def contrast(ink: float, under: Floats) -> Contrast:
    """The contrast of a text of luminance `ink` with the luminances of the px under it, along the
    last axis."""
    ratios = ratio(ink, under)
    at = ratios.shape[-1] // WORST_SHARE
    worst = np.partition(ratios, at, axis=-1)[..., at]
    return Contrast(worst, ratios.mean(axis=-1))


#: How finely strengths are tried before the least is closed in on.
STEPS = 50


class Least(NamedTuple):
    """The least strength that is enough, None where none is; and the greatest margin that any
    has."""

    strength: float | None
    best: float


def least_strength(
    margin: Callable[[float], float], precision: float = 1e-5, *, best: bool = True
) -> Least:
    """The least strength 0 to 1 at which a margin is at least 1. Whether text can be read is not
    always monotone in the strength (a middle grey): it is tried in steps, then closed in on.
    Without `best` no step beyond the first that is enough is tried, and the greatest margin is that
    of those which were."""
    margins: list[float] = []
    first: int | None = None
    for i in range(STEPS + 1):
        margins.append(margin(i / STEPS))
        if margins[-1] >= 1 and first is None:
            first = i
            if not best:
                break
    most = max(margins)
    if first is None:
        return Least(None, most)
    if first == 0:
        return Least(0.0, most)
    low, high = (first - 1) / STEPS, first / STEPS
    while high - low > precision:
        middle = (low + high) / 2
        low, high = (low, middle) if margin(middle) >= 1 else (middle, high)
    return Least(high, most)
