"""Numbers as texts: as JSON from outside writes them, as CSS writes them, as a sentence says
them."""

from __future__ import annotations

import math

import numpy as np
from numpy.typing import NDArray

#: No field holds a whole number of more digits; those of a 64-bit key are 19.
MOST_DIGITS = 20


def whole(digits: str) -> int | float:
    """For `json.loads(parse_int=…)`: a number of hundreds of digits becomes a float, beyond its
    range infinity, which its field then refuses in words, where Python itself would refuse to read
    it at all."""
    return int(digits) if len(digits) <= MOST_DIGITS else float(digits)


def number(value: float) -> str:
    """A number as CSS writes it: at most five decimals, no trailing zeros, never in exponent
    form."""
    text = f"{value:.5f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def px(value: float) -> str:
    return f"{number(value)}px"


def floored(value: float) -> float:
    """The greatest number with five decimals, as CSS writes it, that is not above the value; what
    is that close to such a number already is that number."""
    near = round(value, 5)
    return near if abs(near - value) < 1e-9 else math.floor(value * 1e5) / 1e5


def share_text(share: float) -> str:
    """A share in per cent as a sentence says it; what is not quite nothing or all is not rounded to
    it."""
    percent = share * 100
    if 0 < percent < 1 or 99 < percent < 100:
        return "less than 0.1 %" if percent < 0.1 else f"{min(percent, 99.9):.1f} %"
    return f"{percent:.0f} %"


def shares_text(a: float, b: float) -> tuple[str, str]:
    """Two shares that are held against each other, to a hundredth of a per cent where less would
    not tell them apart: 42.19 % and 42.31 %."""
    if a != b and abs(a - b) < 0.01:
        return f"{a * 100:.2f} %", f"{b * 100:.2f} %"
    return share_text(a), share_text(b)


def whole_px(value: float) -> int:
    """ceil with room for rounding in floating point: 600.0000001 is 600."""
    return math.ceil(round(value, 4))


def whole_px_all(values: NDArray[np.float64]) -> NDArray[np.float64]:
    """`whole_px` of every value of an array."""
    rounded: NDArray[np.float64] = np.ceil(np.round(values, 4))
    return rounded
