"""The handles that every frame has: its lower edge, its sides, and the least and greatest sizes
that are said of it."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from typing import Any, Literal

from skypane.layouts.handles import Edge, Handle, Sets, Stop, ratio_stops
from skypane.layouts.spot import Frame, Spot
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
from skypane.values import FLATTEST, MOST_PX, NARROWEST
from skypane.widths.frames import frame_widths, free_widths, holder_widths, standing_left

#: Left, upper, right and lower edge of a box, from the page's left edge and the placement's top, in
#: CSS px at the spot's one viewport.
Box = tuple[float, float, float, float]
BoxOf = Callable[[Spot], Box]

Bound = Literal["least_px", "greatest_px"]


def box_left(spot: Spot, part: int = 0) -> float:
    """Where the box stands that a part's width rule makes, from the page's left edge, in CSS px."""
    e = spot.cells[part].effective
    widths = frame_widths(e.width, spot.page_widths, spot.container)
    left = standing_left(e.stands, e.width, spot.page_widths, widths, spot.container)
    return float(left[0])


def frame_box(spot: Spot, frame: Frame) -> Box:
    """A part's frame on the page."""
    W, H, x, y = (float(a[0, 0]) for a in frame)
    left = box_left(spot)
    return left + x, y, left + x + W, y + H


def _px(value: float) -> str:
    return f"{number(round(value, 2))} px"


# -- height ---------------------------------------------------------------------------------


def height_handles(spot: Spot, part: int, box: BoxOf, *, of_all: bool = False) -> Iterator[Handle]:
    """The lower edge of a box in the unit of a part's height rule, and what is said of its least
    and greatest. `of_all`: the rule is said for all parts together."""
    rule = spot.cells[part].effective.height
    whose = None if of_all else part
    x0, top, x1, _ = box(spot)

    def low(s: Spot) -> Edge:
        a, _, b, y = box(s)
        return Edge(a, y, b, y)

    def handle(**values: Any) -> Handle:
        return Handle(**{"id": "height", "name": "Lower edge", "axis": "y", "edge": low,
                         "part": whose, **values})  # fmt: skip

    match rule:
        case FixedHeight():
            yield handle(
                **_in_px(rule.height_px, lambda v: rule.model_copy(update={"height_px": v}))
            )
        case ViewportHeight():
            yield handle(
                unit="vh",
                value=rule.percent,
                least=max(0.01, 100 / float(spot.viewports.heights[1, 0])),
                most=1000,
                sets=lambda v: Sets({"height": rule.model_copy(update={"percent": round(v, 2)})}),
                words=lambda v: f"{number(round(v, 2))} vh",
                stops=tuple(_screens(rule)),
            )
        case _:
            w, h = (rule.w, rule.h) if isinstance(rule, RatioHeight) else spot.cells[part].natural
            yield handle(
                unit="ratio",
                value=w / h,
                least=NARROWEST,
                # no frame is less than 1 px high
                most=min(FLATTEST, max(x1 - x0, w / h)),
                sets=lambda v: Sets({"height": _as_bounded(_ratio(v, x1 - x0), rule)}),
                words=lambda v: f"{number(round(v, 2))}:1",
                stops=tuple(_ratios(rule)),
            )
    for bound, name in _BOUNDS:
        px = getattr(rule, bound)
        if px is not None:
            yield handle(
                id=f"height.{bound}",
                name=name,
                edge=_bound_edge(part, bound, (x0, top, x1)),
                **_in_px(px, _bounded(rule, bound)),
            )


_BOUNDS: tuple[tuple[Bound, str], ...] = (
    ("least_px", "Least height"),
    ("greatest_px", "Greatest height"),
)


def _bounded(rule: HeightRule, bound: Bound) -> Callable[[float], HeightRule]:
    """The rule with another least or greatest; the other one goes along where they would cross."""
    other: Bound = "greatest_px" if bound == "least_px" else "least_px"

    def height(px: float) -> HeightRule:
        beyond = getattr(rule, other)
        crossed = beyond is not None and (px > beyond) == (bound == "least_px")
        return rule.model_copy(update={bound: px, **({other: px} if crossed else {})})

    return height


def _in_px(value: float, height: Callable[[float], HeightRule]) -> dict[str, Any]:
    return {
        "unit": "px",
        "value": value,
        "least": 1,
        "most": MOST_PX,
        "step": 0.5,
        "sets": lambda v: Sets({"height": height(round(v, 2))}),
        "words": _px,
    }


def _bound_edge(part: int, bound: Bound, at: tuple[float, float, float]) -> Callable[[Spot], Edge]:
    """Where a box ends that is as high as its least or greatest; `at` is its left, upper and right
    edge."""
    x0, top, x1 = at

    def edge(spot: Spot) -> Edge:
        y = top + float(getattr(spot.cells[part].effective.height, bound) or 0)
        return Edge(x0, y, x1, y)

    return edge


def _ratio(value: float, wide_px: float) -> RatioHeight:
    """In as few digits as make a frame so wide as high as the ratio itself, to a tenth of a px."""
    high = wide_px / value
    told = (float(f"{value:.{digits}g}") for digits in range(3, 10))
    w = next((r for r in told if abs(wide_px / r - high) <= 0.1), value)
    return RatioHeight(w=w, h=1)


def _as_bounded(height: HeightRule, as_: HeightRule) -> HeightRule:
    """A height rule with the bounds of another, as far as it knows them."""
    names = ("least_px", "greatest_px", "least_vh", "greatest_vh")
    known = [n for n in names if n in type(height).model_fields]
    return height.model_copy(update={n: getattr(as_, n, None) for n in known})


def _ratios(rule: HeightRule) -> Iterator[Stop]:
    for height, words in ratio_stops():
        yield Stop(Sets({"height": _as_bounded(height, rule)}), words)


def _screens(rule: ViewportHeight) -> Iterator[Stop]:
    for percent, words in ((100, "all of the screen"), (75, "three quarters of the screen"),
                           (50, "half of the screen")):  # fmt: skip
        yield Stop(Sets({"height": rule.model_copy(update={"percent": percent})}), words)


# -- width ----------------------------------------------------------------------------------


def width_handles(
    spot: Spot, box: BoxOf, *, part: int = 0, of_all: bool = False
) -> Iterator[Handle]:
    """The sides of a box that a part's width rule makes, as far as they can be moved: both where it
    stands in the middle, else the one that it does not stand at."""
    e = spot.cells[part].effective
    whose = None if of_all else part
    sides = {"start": ("right",), "end": ("left",), "centre": ("left", "right")}[e.stands]
    for side in sides:

        def edge(s: Spot, side: str = side) -> Edge:
            x0, y0, x1, y1 = box(s)
            x = x0 if side == "left" else x1
            return Edge(x, y0, x, y1)

        yield Handle(
            **{
                "id": f"width.{side}",
                "name": f"{side.capitalize()} edge",
                "axis": "x",
                "edge": edge,
                "part": whose,
                **_width(spot, e.width),
            }
        )
    yield _standing(spot, part, whose, box)


def _width(spot: Spot, rule: WidthRule) -> dict[str, Any]:
    """A width in the unit of its rule; where its least or greatest holds here, of that."""
    page = spot.page_widths
    free = float(free_widths(rule, page, spot.container)[0])
    bound: Bound | None = None
    if rule.greatest_px is not None and free > rule.greatest_px:
        bound = "greatest_px"
    if rule.least_px is not None and free < rule.least_px:
        bound = "least_px"
    said: dict[str, Any] = {"step": 0.01, "stops": tuple(_widths(spot, rule))}
    if bound is not None:
        name = "at most" if bound == "greatest_px" else "at least"
        most = max(float(page[0]), float(getattr(rule, bound)))
        return said | _number(rule, bound, "px", 1, most, lambda v: f"{name} {_px(v)}", bound=bound)
    match rule:
        case FixedWidth():
            most = max(float(page[0]), rule.width_px)
            return said | _number(rule, "width_px", "px", 1, most, _px)
        case FullWidth():
            return said | _number(
                rule,
                "margin_px",
                "px",
                0,
                max(0.0, float(page[0]) / 2 - 1),
                lambda v: f"{_px(v)} beside it" if v else "from edge to edge",
            )
        case ShareWidth():
            of = rule.of
            holder = float(holder_widths(of, page, spot.container)[0])
            return said | _number(
                rule,
                "percent",
                "%",
                0.01,
                max(100 * float(page[0]) / max(holder, 1), rule.percent),
                lambda v: f"{number(round(v, 2))} % of the {of}",
            )
        case ColumnsWidth():
            n = rule.columns
            return said | _number(
                rule, "take", "", 1, n, lambda v: f"{round(v)} of {n} columns", step=1
            )
        case PercentColumnsWidth():
            return said | _number(
                rule,
                "percent",
                "%",
                0.01,
                100,
                lambda v: f"{number(round(v, 2))} % of the {rule.of}",
                value=rule.css_percent,
            )


def _number(
    rule: WidthRule,
    field: str,
    unit: str,
    least: float,
    most: float,
    words: Callable[[float], str],
    *,
    value: float | None = None,
    step: float = 0.01,
    bound: Bound | None = None,
) -> dict[str, Any]:
    def sets(v: float) -> Sets:
        told = round(v) if step == 1 else round(v, 2)
        other = "least_px" if bound == "greatest_px" else "greatest_px"
        # a greatest below the least would be none: the other one goes along
        changed = {field: told}
        beyond = getattr(rule, other) if bound else None
        if beyond is not None and (beyond > told) == (bound == "greatest_px"):
            changed[other] = told
        return Sets({"width": type(rule).model_validate({**rule.model_dump(), **changed})})

    return {
        "unit": unit,
        "value": float(getattr(rule, field) if value is None else value),
        "least": least,
        "most": most,
        "sets": sets,
        "words": words,
        "step": step,
    }


#: Shares at which a side likes to stop (common practice), in per cent.
_SHARES = ((100 / 3, "a third"), (50, "half"), (200 / 3, "two thirds"))


def _widths(spot: Spot, rule: WidthRule) -> Iterator[Stop]:
    bounds = {"least_px": rule.least_px, "greatest_px": rule.greatest_px}
    yield Stop(Sets({"width": FullWidth(**bounds)}), "the page")
    yield Stop(Sets({"width": ShareWidth(percent=100, of="container", **bounds)}), "the container")
    if isinstance(rule, ColumnsWidth):
        for take in range(1, rule.columns + 1):
            words = f"{take} of {rule.columns} columns"
            yield Stop(Sets({"width": rule.model_copy(update={"take": take})}), words)
        return
    of: Literal["page", "container"] = getattr(rule, "of", "page")
    holder = float(holder_widths(of, spot.page_widths, spot.container)[0])
    for percent, words in _SHARES:
        share = ShareWidth(percent=round(percent, 4), of=of, **bounds)
        if holder > 0:
            yield Stop(Sets({"width": share}), f"{words} of the {of}")


_STANDS = ("start", "centre", "end")


def _standing(spot: Spot, part: int, whose: int | None, box: BoxOf) -> Handle:
    """Where a box stands that is narrower than its holder."""
    e = spot.cells[part].effective

    def middle(s: Spot) -> Edge:
        x0, y0, x1, _ = box(s)
        return Edge((x0 + x1) / 2, y0, (x0 + x1) / 2, y0)

    def sets(value: float) -> Sets:
        return Sets({"stands": _STANDS[round(value)]})

    return Handle(
        id="stands",
        name="Where it stands",
        axis="x",
        unit="",
        value=float(_STANDS.index(e.stands)),
        least=0,
        most=2,
        edge=middle,
        sets=sets,
        words=lambda v: _STANDS[round(v)],
        step=1,
        part=whose,
    )
