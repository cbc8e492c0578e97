"""Bands, and the points of curves over all widths."""

from __future__ import annotations

from typing import Literal

from skypane.values import Noun
from skypane.widths.curves import Curve
from skypane.widths.runs import Run

#: x0, x1, y0, y1 in px of an original.
EdgesPx = tuple[int, int, int, int]


class Band(Noun):
    """How one thing fares at every width. `kind` says what: a keep area, sharpness at a density,
    weight at a density, the width of the frame, the keep areas of all items together; of words:
    whether a text can be read, whether they lie clear of keep areas, whether they fit; whether just
    one of a set shows; whether the lettering of a logo can be read, its height as a share of the
    least.

    `curve` is of shares in view, of shares of the px needed (of spans that are soft somewhere), of
    bytes, of CSS px, or of contrast ratios; `peak` is the narrowest width at which a frame is
    widest, and how wide.
    `needed` is, of a sharpness band, of the image px that the frame asks for, before rounding up;
    of a text's, of the contrast that it needs.
    """

    kind: Literal[
        "area",
        "sharp",
        "weight",
        "frame",
        "readable",
        "clear",
        "fits",
        "one",
        "together",
        "lettering",
    ]
    name: str
    density: float | None
    runs: tuple[Run, ...]
    curve: Curve
    needed: Curve | None
    peak: tuple[int, float] | None = None


class ViewportPoint(Noun):
    to_px: int
    typical_px: int
