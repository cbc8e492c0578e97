"""How big a frame is at every viewport width, and the same function as CSS.

A width rule is a piecewise linear function of the viewport width v; its holder is the page or the container
C(v) = min(max_width, v − 2·margin). Columns with gutter: one = (C − (n−1)·g)/n, k columns = k·one + (k−1)·g (common practice).
CSS lengths follow CSS Values 4 (`calc()`, `min()`, `max()`, `clamp()`), boxes CSS Sizing 4 (`aspect-ratio`).
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple

import numpy as np
from numpy.typing import NDArray

from skypane.model import (
    ColumnsWidth,
    Container,
    FixedHeight,
    FixedWidth,
    FullWidth,
    HeightRule,
    MediaStyle,
    NaturalHeight,
    RatioHeight,
    ShareWidth,
    Site,
    Stands,
    ViewportHeight,
    WidthRule,
)

Floats = NDArray[np.float64]


def number(value: float) -> str:
    """A number as CSS writes it: at most five decimals, no trailing zeros, never in exponent form."""
    text = f"{value:.5f}".rstrip("0").rstrip(".")
    return "0" if text in ("-0", "") else text


def px(value: float) -> str:
    return f"{number(value)}px"


def share_text(share: float) -> str:
    """A share in per cent as a sentence says it; what is not quite nothing or all is not rounded to it."""
    percent = share * 100
    if 0 < percent < 1 or 99 < percent < 100:
        return "less than 0.1 %" if percent < 0.1 else f"{min(percent, 99.9):.1f} %"
    return f"{percent:.0f} %"


def _clamped(values: Floats, least: float | None, greatest: float | None) -> Floats:
    """CSS order: the least wins over the greatest."""
    if greatest is not None:
        values = np.minimum(values, greatest)
    if least is not None:
        values = np.maximum(values, least)
    return values


def column_share(rule: ColumnsWidth) -> tuple[float, float]:
    """Width of the columns as (share of the holder, constant px): k·(C − (n−1)g)/n + (k−1)g."""
    share = rule.take / rule.columns
    constant = (rule.take - 1) * rule.gutter_px - share * (rule.columns - 1) * rule.gutter_px
    return share, constant


def padded_columns_percent(columns: int, padding_percent: float) -> float:
    """Width in per cent of each of `columns` boxes with percentage padding on both sides: 100/n − 2·padding."""
    return 100 / columns - 2 * padding_percent


def frame_widths(rule: WidthRule, viewport_widths: Floats, container: Container) -> Floats:
    """Frame width in CSS px at each viewport width; never negative."""
    v = np.asarray(viewport_widths, dtype=np.float64)

    def holder(of: str) -> Floats:
        if of == "page":
            return v
        return np.minimum(container.max_width_px, v - 2 * container.margin_px)

    match rule:
        case FixedWidth():
            widths = np.full_like(v, rule.width_px)
        case FullWidth():
            widths = v
        case ShareWidth():
            widths = holder(rule.of) * rule.percent / 100
        case ColumnsWidth():
            share, constant = column_share(rule)
            widths = holder(rule.of) * share + constant
    return np.maximum(_clamped(widths, rule.least_px, rule.greatest_px), 0)


def frame_heights(rule: HeightRule, widths: Floats, viewport_heights: Floats, natural_ratio: float) -> Floats:
    """Frame height in CSS px for frames of the given widths. `natural_ratio` is the picture's (crop's) width over height."""
    match rule:
        case RatioHeight():
            heights = widths * rule.h / rule.w
        case NaturalHeight():
            heights = widths / natural_ratio
        case FixedHeight():
            heights = np.full_like(widths, rule.height_px)
        case ViewportHeight():
            heights = np.broadcast_to(viewport_heights * rule.percent / 100, widths.shape).astype(np.float64)
    if isinstance(rule, RatioHeight):
        if rule.greatest_vh is not None:
            heights = np.minimum(heights, viewport_heights * rule.greatest_vh / 100)
        heights = _clamped(heights, None, rule.greatest_px)
        if rule.least_vh is not None:
            heights = np.maximum(heights, viewport_heights * rule.least_vh / 100)
        return _clamped(heights, rule.least_px, None)
    return _clamped(heights, rule.least_px, rule.greatest_px)


def viewport_heights(site: Site, viewport_widths: Floats) -> tuple[Floats, Floats, Floats]:
    """Least, typical and greatest viewport height in CSS px that occur at each viewport width."""
    rows = sorted(site.heights, key=lambda r: r.to_px)
    edges = np.array([r.to_px for r in rows])
    index = np.minimum(np.searchsorted(edges, viewport_widths, side="left"), len(rows) - 1)

    def column(values: list[int]) -> Floats:
        return np.array(values, dtype=np.float64)[index]

    return column([r.least_px for r in rows]), column([r.typical_px for r in rows]), column([r.greatest_px for r in rows])


# -- the same as CSS -----------------------------------------------------------------------------------------------------


def _bounded(core: str, least: float | None, greatest: float | None) -> str:
    if least is not None and greatest is not None:
        return f"clamp({px(least)}, {core}, {px(greatest)})"
    if greatest is not None:
        return f"min({core}, {px(greatest)})"
    if least is not None:
        return f"max({core}, {px(least)})"
    return f"calc({core})" if any(c in core for c in "+*") else core


def _holder(of: str, container: Container, whole: str) -> str:
    if of == "page":
        return whole
    inner = f"{whole} - {px(2 * container.margin_px)}" if container.margin_px else whole
    return f"min({px(container.max_width_px)}, {inner})"


def width_css(rule: WidthRule, container: Container) -> str:
    """The width rule as a CSS length for layout; the page's width is `100%` there, which is less than `100vw` by a scrollbar."""
    whole = "100%"
    match rule:
        case FixedWidth():
            core = px(rule.width_px)
        case FullWidth():
            core = whole
        case ShareWidth():
            if rule.of == "page":
                core = f"{number(rule.percent)}%"
            elif rule.percent == 100:
                core = _holder(rule.of, container, whole)
            else:
                core = f"{_holder(rule.of, container, whole)} * {number(rule.percent / 100)}"
        case ColumnsWidth():
            share, constant = column_share(rule)
            core = _holder(rule.of, container, whole) + (f" * {rule.take} / {rule.columns}" if share != 1 else "")
            if abs(constant) > 1e-9:
                core += f" {'+' if constant > 0 else '-'} {px(abs(constant))}"
    return _bounded(core, rule.least_px, rule.greatest_px)


class Piece(NamedTuple):
    """A stretch of viewport widths, up to and with `until`, over which a frame is share·v + constant px wide."""

    until: float
    share: float
    constant: float


def width_pieces(rule: WidthRule, container: Container) -> list[Piece]:
    """The width rule as the straight lines that it is made of, from the narrowest viewport; the last one goes on for ever."""
    holder = [Piece(math.inf, 1.0, 0.0)]
    if getattr(rule, "of", "page") == "container":
        filled = container.max_width_px + 2 * container.margin_px
        holder = [Piece(filled, 1.0, -2 * container.margin_px), Piece(math.inf, 0.0, container.max_width_px)]
    match rule:
        case FixedWidth():
            pieces = [Piece(math.inf, 0.0, rule.width_px)]
        case FullWidth():
            pieces = holder
        case ShareWidth():
            pieces = [Piece(p.until, p.share * rule.percent / 100, p.constant * rule.percent / 100) for p in holder]
        case ColumnsWidth():
            share, constant = column_share(rule)
            pieces = [Piece(p.until, p.share * share, p.constant * share + constant) for p in holder]
    if rule.greatest_px is not None:
        pieces = _cut_at(pieces, rule.greatest_px, above=True)
    return _cut_at(pieces, rule.least_px or 0.0, above=False)


def _cut_at(pieces: list[Piece], bound: float, *, above: bool) -> list[Piece]:
    """The same, with what is above (or below) a bound put on the bound."""
    out: list[Piece] = []
    start = 0.0
    for piece in pieces:
        meets = (bound - piece.constant) / piece.share if piece.share else math.inf
        for until in sorted({min(max(meets, start), piece.until), piece.until}):
            middle = start + 1 if math.isinf(until) else (start + until) / 2
            beyond = (piece.share * middle + piece.constant > bound) == above
            if until > start:
                out.append(Piece(until, 0.0, bound) if beyond else Piece(until, piece.share, piece.constant))
            start = until
    return out


def sizes_css(spans: Sequence[tuple[float, float, WidthRule]], container: Container, style: MediaStyle = "max-width") -> str:
    """The `sizes` attribute of spans from the narrowest, each as (first width, last width, width rule).

    Evaluates to the frame width at every viewport width, in all engines: written with media conditions, plain lengths and `calc()`
    with + and − alone (docs/engines.md: WebKit drops an entry with min(), max() or clamp()).
    """
    found: list[tuple[float, float, str]] = []  # from, to and with, length
    start = float(spans[0][0]) - 1  # no narrower viewport is asked about
    for i, (_, last, rule) in enumerate(spans):
        ends = math.inf if i == len(spans) - 1 else float(last)
        for piece in width_pieces(rule, container):
            until = min(piece.until, ends)
            if until <= start:
                continue
            text = _line_css(piece)
            if found and found[-1][2] == text:
                found[-1] = (found[-1][0], until, text)
            else:
                found.append((start, until, text))
            start = until
    posts = {float(last) for _, last, _ in spans}
    if style == "min-width":
        entries = [(f"(min-width: {px(at + 1 if at in posts else at)})", text) for at, _, text in reversed(found)]
    else:
        entries = [(_until_css(until, style, until in posts), text) for _, until, text in found]
    return ", ".join(text if i == len(entries) - 1 else f"{media} {text}" for i, (media, text) in enumerate(entries))


def _until_css(until: float, style: MediaStyle, is_post: bool) -> str:
    """Up to a width: at a post as the sources have it, elsewhere, where two lines meet, in whatever way is plain."""
    if style == "range":
        return f"(width < {px(until + 1)})" if is_post else f"(width <= {px(until)})"
    return f"(max-width: {px(until)})"


def _line_css(piece: Piece) -> str:
    """share·v + constant as a length: 50vw, 320px or calc(50vw - 20px)."""
    share, constant = number(piece.share * 100), number(piece.constant)
    if share == "0":
        return f"{constant}px"
    if constant == "0":
        return f"{share}vw"
    return f"calc({share}vw {'-' if piece.constant < 0 else '+'} {number(abs(piece.constant))}px)"


def height_css(rule: HeightRule, crop_ratio: tuple[int, int]) -> dict[str, str]:
    """Declarations that give the frame its height. `crop_ratio` is the picture's (crop's) px width and height."""
    out = {"aspect-ratio": "auto", "height": "auto"}
    match rule:
        case RatioHeight():
            out["aspect-ratio"] = f"{number(rule.w)} / {number(rule.h)}"
        case NaturalHeight():
            out["aspect-ratio"] = f"{crop_ratio[0]} / {crop_ratio[1]}"
        case FixedHeight():
            out["height"] = px(rule.height_px)
        case ViewportHeight():
            out["height"] = f"{number(rule.percent)}vh"
    least_vh, greatest_vh = (rule.least_vh, rule.greatest_vh) if isinstance(rule, RatioHeight) else (None, None)
    out["min-height"] = _bound("max", rule.least_px, least_vh) or "0"
    out["max-height"] = _bound("min", rule.greatest_px, greatest_vh) or "none"
    return out


def _bound(function: str, in_px: float | None, in_vh: float | None) -> str:
    """A bound in px, in vh, or the stricter of both; "" for none."""
    said = [px(in_px)] if in_px is not None else []
    said += [f"{number(in_vh)}vh"] if in_vh is not None else []
    return f"{function}({', '.join(said)})" if len(said) == 2 else "".join(said)


def depends_on_viewport_height(rule: HeightRule) -> bool:
    if isinstance(rule, RatioHeight):
        return rule.least_vh is not None or rule.greatest_vh is not None
    return isinstance(rule, ViewportHeight)


def standing_css(stands: Stands, rule: WidthRule, container: Container) -> str:
    """`margin-inline` of a frame that is narrower than its holder (CSS Box 4): where it stands in the page, or in a container
    that is itself in the middle of the page."""
    if stands == "centre":
        return "auto"
    side = "0px"
    if getattr(rule, "of", "page") == "container":
        side = f"max({px(container.margin_px)}, (100% - {px(container.max_width_px)}) / 2)"
    return f"{side} auto" if stands == "start" else f"auto {side}"
