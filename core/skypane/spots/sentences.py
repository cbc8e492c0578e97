"""What a frame rule is in a few words."""

from __future__ import annotations

from fractions import Fraction

from skypane.model import (
    ColumnsWidth,
    FixedHeight,
    FixedWidth,
    FullWidth,
    HeightRule,
    PercentColumnsWidth,
    RatioHeight,
    ShareWidth,
    ViewportHeight,
    WidthRule,
)
from skypane.numerals import number

_NUMBERS = (
    "no",
    "one",
    "two",
    "three",
    "four",
    "five",
    "six",
    "seven",
    "eight",
    "nine",
    "ten",
    "eleven",
    "twelve",
)
_SHARES = {
    Fraction(1, 2): "half",
    Fraction(1, 3): "a third of",
    Fraction(2, 3): "two thirds of",
    Fraction(1, 4): "a quarter of",
    Fraction(3, 4): "three quarters of",
}


def in_words(n: int) -> str:
    """A small number in words."""
    return _NUMBERS[n] if n < len(_NUMBERS) else str(n)


def width_words(rule: WidthRule) -> str:
    """“the container”, “two of three columns, gutter 24”, “471 px”, “a third of the page less
    20 px”; with its bounds."""
    words = _free(rule)
    if rule.least_px is not None:
        words += f", at least {number(rule.least_px)} px"
    if rule.greatest_px is not None:
        words += f", at most {number(rule.greatest_px)} px"
    return words


def _free(rule: WidthRule) -> str:
    match rule:
        case FullWidth() if rule.margin_px:
            return f"the page less {number(rule.margin_px)} px on both sides"
        case FullWidth():
            return "the page from edge to edge"
        case FixedWidth():
            return f"{number(rule.width_px)} px"
        case ShareWidth() if rule.percent == 100:
            return f"the {rule.of}"
        case ShareWidth():
            return _share(rule.percent, rule.of)
        case ColumnsWidth() if rule.of == "page" and rule.take == 1:
            less = rule.gutter_px * (rule.columns - 1) / rule.columns
            return f"{_share(100 / rule.columns, 'page')} less {number(round(less, 2))} px"
        case ColumnsWidth():
            of = "" if rule.of == "container" else " of the page"
            said = f"{in_words(rule.take)} of {in_words(rule.columns)} columns{of}"
            return f"{said}, gutter {number(rule.gutter_px)}"
        case PercentColumnsWidth():
            return _share(rule.frame_percent, rule.of)


def _share(percent: float, of: str) -> str:
    for share, words in _SHARES.items():
        if abs(float(share) * 100 - percent) < 0.005:
            return f"{words} the {of}"
    return f"{number(round(percent, 2))} % of the {of}"


def height_words(rule: HeightRule) -> str:
    """“2:1”, “480 px high”, “70 % of the screen's height”."""
    match rule:
        case RatioHeight():
            return f"{number(rule.w)}:{number(rule.h)}"
        case FixedHeight():
            return f"{number(rule.height_px)} px high"
        case ViewportHeight():
            return f"{number(rule.percent)} % of the screen's height"
    return "as high as the picture"
