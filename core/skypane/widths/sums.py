"""How a frame's width comes about, as sums that a designer can follow, and whether a row of such
frames fits (rules §2; the check values there are common practice).

A browser cuts every length to 1/64 px before it adds them up (seen in Chromium, docs/chromium.md),
so that 6 × 16.6667 % stay in one row.
"""

from __future__ import annotations

import math
from typing import NamedTuple

import numpy as np

from skypane.model import (
    ColumnsWidth,
    Container,
    FixedWidth,
    FullWidth,
    PercentColumnsWidth,
    ShareWidth,
    WidthRule,
)
from skypane.widths.frames import Floats, frame_widths, free_widths, holder_widths

#: The finest length that browsers lay out.
LAYOUT_PX = 1 / 64


def figure(value: float, digits: int = 2) -> str:
    """A number as a sum says it: no trailing zeros, a true minus."""
    text = f"{value:.{digits}f}"
    text = text.rstrip("0").rstrip(".") if "." in text else text
    return "0" if text in ("-0", "") else text.replace("-", "−")


def width_sum(rule: WidthRule, container: Container, viewport_px: float) -> str:
    """The width of a frame at one viewport width as a sum: “(1080 − 2·60)/3 = 320”."""
    at = np.array([float(viewport_px)])
    width = float(frame_widths(rule, at, container)[0])
    holder = _holder(rule, container, viewport_px)
    free = float(free_widths(rule, at, container)[0])
    match rule:
        case FixedWidth():
            terms = figure(rule.width_px)
        case FullWidth() if rule.margin_px:
            terms = f"{figure(viewport_px)} − 2·{figure(rule.margin_px)}"
        case FullWidth():
            terms = figure(viewport_px)
        case ShareWidth():
            terms = f"{figure(rule.percent)} % of {holder}"
        case ColumnsWidth():
            terms = _columns(rule, holder)
        case PercentColumnsWidth():
            terms = f"{_percent(rule)} of {holder}"
    is_plain = isinstance(rule, FixedWidth) or (isinstance(rule, FullWidth) and not rule.margin_px)
    out = terms if is_plain else f"{terms} = {figure(free)}"
    if width and abs(free - width) > 1e-6:
        bound = "at most" if width < free else "at least"
        out += f", {bound} {figure(width)}"
    return out


def _holder(rule: WidthRule, container: Container, viewport_px: float) -> str:
    if getattr(rule, "of", "page") == "page":
        return figure(viewport_px)
    inner = viewport_px - 2 * container.margin_px
    if inner >= container.max_width_px or not container.margin_px:
        return figure(min(inner, container.max_width_px))
    return f"({figure(viewport_px)} − 2·{figure(container.margin_px)})"


def _columns(rule: ColumnsWidth, holder: str) -> str:
    n, k, g = rule.columns, rule.take, figure(rule.gutter_px)
    if n == k:
        return holder
    free = f"({holder} − {n - 1}·{g})" if rule.gutter_px else holder
    one = f"{free}/{n}"
    if k == 1:
        return one
    return f"{k}·{one}" + (f" + {k - 1}·{g}" if rule.gutter_px else "")


def _percent(rule: PercentColumnsWidth) -> str:
    if not rule.padding_percent or (rule.box == "content-box" and rule.percent is not None):
        return f"{figure(rule.frame_percent)} %"
    cell = f"100/{rule.columns}" if rule.percent is None else figure(rule.percent)
    return f"({cell} − 2·{figure(rule.padding_percent)}) %"


class Row(NamedTuple):
    """How a row of percentage columns adds up. `wraps` says at which viewport widths it does not
    fit, `one_more` at which another cell would still fit into it."""

    percent: float
    text: str
    wraps: Floats
    one_more: Floats


def row_of(rule: PercentColumnsWidth, viewport_widths: Floats, container: Container) -> Row:
    """The row that `columns` such cells make, at each viewport width."""
    v = np.asarray(viewport_widths, dtype=np.float64)
    holder = _laid(holder_widths(rule.of, v, container))
    cell = _laid(holder * rule.frame_percent / 100)
    cell = cell + 2 * _laid(holder * rule.padding_percent / 100)
    n, padding = rule.columns, rule.padding_percent
    each = figure(rule.css_percent, 4)
    if padding and rule.box == "content-box":
        each = f"({each} + {figure(2 * padding, 4)})"
    percent = n * rule.cell_percent
    wraps, one_more = n * cell > holder + 1e-9, (n + 1) * cell <= holder + 1e-9
    return Row(percent, f"{n} × {each} = {figure(percent, 4)} %", v[wraps], v[one_more])


def _laid(px: Floats) -> Floats:
    """Lengths as they are laid out."""
    return np.floor(px / LAYOUT_PX + 1e-9) * LAYOUT_PX


def sum_is_over(percent: float) -> bool:
    """Whether a row's plain sum is more than all of it."""
    return percent > 100 and not math.isclose(percent, 100, rel_tol=1e-9)
