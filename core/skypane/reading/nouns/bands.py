"""Bands, and the points of curves over all widths."""

from __future__ import annotations

from typing import Literal

from skypane.model import Feature
from skypane.values import Noun
from skypane.widths.curves import Curve
from skypane.widths.runs import Run, Verdict

#: x0, x1, y0, y1 in px of an original.
EdgesPx = tuple[int, int, int, int]


class FileRun(Noun):
    """Consecutive widths at which one file is taken: its name, with and without its ending, and its
    px."""

    first: int
    last: int
    stem: str
    name: str
    width_px: int


class Band(Noun):
    """How one thing fares at every width. `kind` says what: a keep area, sharpness at a density,
    weight at a density, the width of the frame, the keep areas of all items together; of words:
    whether a text can be read, whether they lie clear of keep areas, whether they fit; whether just
    one of a set shows; whether the lettering of a logo can be read, its height as a share of the
    least; of a picture without keep areas how much of it is in view.

    `id` is its own within a reading. `wrong` says in a word or two what is wrong where it is, with
    `{verdict}` for that of the run, "" where that alone does; `figured` says it with the figure of
    a width, in the place of `{times}` (a share of the px needed), `{contrast}` or `{out}` (what of
    a share is missing).

    `curve` is of shares in view, of shares of the px needed (of spans that are soft somewhere), of
    bytes, of CSS px, or of contrast ratios; `peak` is the narrowest width at which a frame is
    widest, and how wide.
    `needed` is, of a sharpness band, of the image px that the frame asks for, before rounding up;
    of a text's, of the contrast that it needs. `taken` are, of a sharpness band, the files that
    screens of its density take. `elsewhere`: the conditions under which it fails, beside those that
    are seen.
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
    id: str
    name: str
    runs: tuple[Run, ...]
    curve: Curve
    density: float | None = None
    needed: Curve | None = None
    wrong: str = ""
    figured: str = ""
    peak: tuple[int, float] | None = None
    taken: tuple[FileRun, ...] = ()
    elsewhere: tuple[tuple[Feature, ...], ...] = ()


#: How a verdict is drawn: all is well, something is wrong, or something is not to be seen at all.
Drawn = Literal["whole", "cut", "lost"]


class VerdictRun(Noun):
    """Consecutive widths with one verdict, the worst of all that is known there. `verdict` and
    `drawn` are None where there is nothing to judge; `band` is the id of the band that is worst,
    None where nothing is wrong or a finding says it. `word` says it in short, `figured` with the
    band's figure at a width (see `Band`), "" where there is none to say."""

    first: int
    last: int
    verdict: Verdict | None
    drawn: Drawn | None
    word: str
    band: str | None = None
    figured: str = ""


class Verdicts(Noun):
    """The verdicts of all widths, as screens of one density see it."""

    density: float
    runs: tuple[VerdictRun, ...]


class ViewportPoint(Noun):
    to_px: int
    typical_px: int
