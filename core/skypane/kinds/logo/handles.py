"""What can be pulled of a logo: its box and the padding in it."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from skypane.layouts import (
    Box,
    Edge,
    Handle,
    Spot,
    box_left,
    height_handles,
    value_handle,
    width_handles,
)
from skypane.widths.frames import Floats

BoxOf = Callable[[Spot], tuple[Floats, Floats]]


def handles_of(spot: Spot, box_of: BoxOf) -> Iterator[Handle]:
    def box(s: Spot) -> Box:
        (W, H), left = box_of(s), box_left(s)
        return left, 0.0, left + float(W[0, 0]), float(H[0, 0])

    def padding(s: Spot) -> Edge:
        x0, y0, _, y1 = box(s)
        x = x0 + s.values.padding_px  # type: ignore[attr-defined]  # a logo's
        return Edge(x, y0, x, y1)

    yield from height_handles(spot, 0, box)
    yield from width_handles(spot, box)
    x0, y0, x1, y1 = box(spot)
    most = max(0.0, (min(x1 - x0, y1 - y0) - 1) / 2)
    yield value_handle(spot, "padding_px", "Padding", "x", padding, step=0.5, most=most)
