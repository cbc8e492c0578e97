"""How long the filters of an SVG take to draw at least, told before they are drawn.

Filters are the part of a drawing that costs time beyond its size: a radius of a few px makes each
px look at hundreds of others (Filter Effects Module Level 1, §9). The time per px was measured with
librsvg (in libvips 8.18) on one core of 2026. It is a lower bound: where the size of what is
filtered is not said, that filter is not counted.
"""

from __future__ import annotations

import math
import re
from collections.abc import Callable, Iterator
from xml.etree import ElementTree

from skypane.pixels.svg import Box, view_box

_REFERENCE = re.compile(r"""url\(\s*["']?#([^"')\s]+)""", re.I)
#: librsvg clips radii (to 10 px) and octaves (to 9).
_MOST_RADIUS_PX, _MOST_OCTAVES = 10, 9


def _number(text: str) -> float | None:
    try:
        value = float(text)
    except ValueError:
        return None
    return value if math.isfinite(value) else None


def _numbers(text: str | None) -> list[float]:
    return [n for part in re.split(r"[\s,]+", text or "") if (n := _number(part)) is not None]


def _blur(e: ElementTree.Element, scale: float) -> float:
    return 0.3 if any(_numbers(e.get("stdDeviation"))) else 0.0


def _morphology(e: ElementTree.Element, scale: float) -> float:
    radii = _numbers(e.get("radius")) or [0.0]
    sides = [2 * min(abs(r) * scale, _MOST_RADIUS_PX) + 1 for r in (radii[0], radii[-1])]
    return 0.012 * sides[0] * sides[1]


def _turbulence(e: ElementTree.Element, scale: float) -> float:
    octaves = (_numbers(e.get("numOctaves")) or [1.0])[0]
    return 0.15 * min(max(octaves, 0.0), _MOST_OCTAVES)


def _convolution(e: ElementTree.Element, scale: float) -> float:
    order = _numbers(e.get("order")) or [3.0]
    return 0.03 * abs(order[0] * order[-1])


#: Seconds per million px of a filter's region; `scale` is px per user unit.
_SECONDS: dict[str, Callable[[ElementTree.Element, float], float]] = {
    "feGaussianBlur": _blur,
    "feDropShadow": _blur,
    "feMorphology": _morphology,
    "feTurbulence": _turbulence,
    "feConvolveMatrix": _convolution,
    "feDisplacementMap": lambda e, scale: 1.0,
    "feColorMatrix": lambda e, scale: 0.2,
    "feComponentTransfer": lambda e, scale: 0.2,
    "feDiffuseLighting": lambda e, scale: 0.15,
    "feSpecularLighting": lambda e, scale: 0.15,
}


def filter_seconds(data: bytes, drawn_px: float) -> float:
    """Seconds of computing that the filters of an SVG take at least. `data` is its root element in
    UTF-8, `drawn_px` the longer side that it is drawn at. 0 where it cannot be read."""
    try:
        root = ElementTree.fromstring(data)
    except ElementTree.ParseError:
        return 0.0
    box = view_box(root)
    filters = {e.get("id", ""): e for e in root.iter() if _local(e) == "filter"}
    if box is None or not filters:
        return 0.0
    scale = drawn_px / max(box[2:])
    return sum(
        _one(filters[name], element, box, scale)
        for element in root.iter()
        for name in _filters_of(element)
        if name in filters
    )


def _local(e: ElementTree.Element) -> str:
    return str(e.tag).rpartition("}")[2]


def _filters_of(element: ElementTree.Element) -> Iterator[str]:
    if said := element.get("filter"):
        yield from _REFERENCE.findall(said)
    for part in (element.get("style") or "").split(";"):
        name, _, value = part.partition(":")
        if name.strip().lower() == "filter":
            yield from _REFERENCE.findall(value)


def _one(found: ElementTree.Element, on: ElementTree.Element, shown: Box, scale: float) -> float:
    region = _region(found, on, shown)
    if region is None:
        return 0.0
    x, y, w, h = region
    # what is outside the drawing is not filtered
    left, top, width, height = shown
    across = max(0.0, min(x + w, left + width) - max(x, left))
    down = max(0.0, min(y + h, top + height) - max(y, top))
    million_px = across * down * scale * scale / 1e6
    per_million = sum(_SECONDS[name](e, scale) for e in found if (name := _local(e)) in _SECONDS)
    return million_px * per_million


def _region(found: ElementTree.Element, on: ElementTree.Element, shown: Box) -> Box | None:
    """The filter's region in user units (Filter Effects 1, §8); None where it depends on a shape
    that is not looked at."""
    said = [found.get(name) for name in ("x", "y", "width", "height")]
    own = found.get("filterUnits") == "userSpaceOnUse"
    box = (0.0, 0.0, *shown[2:]) if own else _box_of(on, shown)
    if box is None:
        return None
    usual = ("-10%", "-10%", "120%", "120%")
    parts = [
        _length(text or usual[i], box[2 + i % 2], in_shares=not own) for i, text in enumerate(said)
    ]
    return _all_said(parts[0], parts[1], parts[2], parts[3], from_=box[:2])


def _all_said(
    x: float | None, y: float | None, w: float | None, h: float | None, from_: tuple[float, float]
) -> Box | None:
    if x is None or y is None or w is None or h is None:
        return None
    return (from_[0] + x, from_[1] + y, w, h)


def _length(text: str, of: float, *, in_shares: bool = False) -> float | None:
    """A length in user units; a plain number may be a share of `of`."""
    text = text.strip().removesuffix("px")
    value = _number(text.removesuffix("%"))
    if value is None:
        return None
    if text.endswith("%"):
        return value / 100 * of
    return value * of if in_shares else value


def _box_of(e: ElementTree.Element, shown: Box) -> Box | None:
    """The box of a rectangle, a circle or an ellipse that is not moved."""
    if e.get("transform"):
        return None

    def said(name: str, axis: int) -> float | None:
        return _length(e.get(name, "0"), shown[2 + axis])

    kind = _local(e)
    if kind in ("rect", "image"):
        return _all_said(
            said("x", 0), said("y", 1), said("width", 0), said("height", 1), (0.0, 0.0)
        )
    if kind in ("circle", "ellipse"):
        names = ("r", "r") if kind == "circle" else ("rx", "ry")
        centre = said("cx", 0), said("cy", 1)
        radii = said(names[0], 0), said(names[1], 1)
        if None in (*centre, *radii):
            return None
        (cx, cy), (rx, ry) = centre, radii
        return (cx - rx, cy - ry, 2 * rx, 2 * ry)  # type: ignore[operator]
    return None
