"""Bands, and the points of curves over all widths."""

from __future__ import annotations

from typing import Literal

from skypane.values import Noun
from skypane.widths.curves import Curve
from skypane.widths.runs import Run, Verdict

#: x0, x1, y0, y1 in px of an original.
EdgesPx = tuple[int, int, int, int]


class FileRun(Noun):
    """Consecutive widths at which one file is taken: its name without the format, and its px."""

    first: int
    last: int
    stem: str
    width_px: int


class Band(Noun):
    """How one thing fares at every width. `kind` says what: a keep area, sharpness at a density,
    weight at a density, the width of the frame, the keep areas of all items together; of words:
    whether a text can be read, whether they lie clear of keep areas, whether they fit; whether just
    one of a set shows; whether the lettering of a logo can be read, its height as a share of the
    least; of a picture without keep areas how much of it is in view.

    `curve` is of shares in view, of shares of the px needed (of spans that are soft somewhere), of
    bytes, of CSS px, or of contrast ratios; `peak` is the narrowest width at which a frame is
    widest, and how wide.
    `needed` is, of a sharpness band, of the image px that the frame asks for, before rounding up;
    of a text's, of the contrast that it needs. `taken` are, of a sharpness band, the files that
    screens of its density take.
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
        "seen",
    ]
    name: str
    density: float | None
    runs: tuple[Run, ...]
    curve: Curve
    needed: Curve | None
    peak: tuple[int, float] | None = None
    taken: tuple[FileRun, ...] = ()


class VerdictRun(Noun):
    """Consecutive widths with one verdict, the worst of all bands: that of the band of this `kind`
    and `name`. `verdict` is None where there is nothing to judge, and `kind` and `name` are where
    nothing is wrong. `word` says it in short."""

    first: int
    last: int
    verdict: Verdict | None
    word: str
    kind: str | None = None
    name: str | None = None


class Verdicts(Noun):
    """The verdicts of all widths, as screens of one density see it."""

    density: float
    runs: tuple[VerdictRun, ...]


class ViewportPoint(Noun):
    to_px: int
    typical_px: int
