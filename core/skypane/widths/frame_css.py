"""A frame as CSS: lengths follow CSS Values 4 (`calc()`, `min()`, `max()`, `clamp()`), boxes CSS
Sizing 4 (`aspect-ratio`)."""

from __future__ import annotations

from skypane.model import (
    ColumnsWidth,
    Container,
    FixedHeight,
    FixedWidth,
    FullWidth,
    HeightRule,
    NaturalHeight,
    PercentColumnsWidth,
    RatioHeight,
    ShareWidth,
    Stands,
    ViewportHeight,
    WidthRule,
)
from skypane.numerals import number, px
from skypane.widths.frames import column_share


def bounded_css(core: str, least: float | None, greatest: float | None) -> str:
    if least is not None and greatest is not None:
        return f"clamp({px(least)}, {core}, {px(greatest)})"
    if greatest is not None:
        return f"min({core}, {px(greatest)})"
    if least is not None:
        return f"max({core}, {px(least)})"
    sums = "+" in core or "*" in core or (" - " in core and not core.startswith("min("))
    return f"calc({core})" if sums else core


def holder_css(of: str, container: Container, whole: str) -> str:
    if of == "page":
        return whole
    inner = f"{whole} - {px(2 * container.margin_px)}" if container.margin_px else whole
    return f"min({px(container.max_width_px)}, {inner})"


def width_css(rule: WidthRule, container: Container) -> str:
    """The width rule as a CSS length for layout; the page's width is `100%` there, which is less
    than `100vw` by a scrollbar."""
    whole = "100%"
    match rule:
        case FixedWidth():
            core = px(rule.width_px)
        case FullWidth():
            core = f"{whole} - {px(2 * rule.margin_px)}" if rule.margin_px else whole
        case ShareWidth() | PercentColumnsWidth():
            percent = rule.percent if isinstance(rule, ShareWidth) else rule.frame_percent
            if rule.of == "page":
                core = f"{number(percent)}%"
            elif percent == 100:
                core = holder_css(rule.of, container, whole)
            else:
                core = f"{holder_css(rule.of, container, whole)} * {number(percent / 100)}"
        case ColumnsWidth():
            share, constant = column_share(rule)
            core = holder_css(rule.of, container, whole) + (
                f" * {rule.take} / {rule.columns}" if share != 1 else ""
            )
            if abs(constant) > 1e-9:
                core += f" {'+' if constant > 0 else '-'} {px(abs(constant))}"
    return bounded_css(core, rule.least_px, rule.greatest_px)


def height_css(rule: HeightRule, crop_ratio: tuple[int, int]) -> dict[str, str]:
    """Declarations that give the frame its height. `crop_ratio` is the picture's (crop's) px width
    and height."""
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
    least_vh, greatest_vh = (
        (rule.least_vh, rule.greatest_vh) if isinstance(rule, RatioHeight) else (None, None)
    )
    out["min-height"] = _bound("max", rule.least_px, least_vh) or "0"
    out["max-height"] = _bound("min", rule.greatest_px, greatest_vh) or "none"
    return out


def _bound(function: str, in_px: float | None, in_vh: float | None) -> str:
    """A bound in px, in vh, or the stricter of both; "" for none."""
    said = [px(in_px)] if in_px is not None else []
    said += [f"{number(in_vh)}vh"] if in_vh is not None else []
    return f"{function}({', '.join(said)})" if len(said) == 2 else "".join(said)


def standing_css(stands: Stands, rule: WidthRule, container: Container) -> str:
    """`margin-inline` of a frame that is narrower than its holder (CSS Box 4): where it stands in
    the page, or in a container that is itself in the middle of the page."""
    if stands == "centre":
        return "auto"
    side = "0px"
    if getattr(rule, "of", "page") == "container":
        side = f"max({px(container.margin_px)}, (100% - {px(container.max_width_px)}) / 2)"
    return f"{side} auto" if stands == "start" else f"auto {side}"
