"""The ladders of a placement."""

from __future__ import annotations

from skypane.values import Noun


class Rung(Noun):
    """One width of a ladder. `share` of the group's audience takes it; `size_bytes` is what its
    files weigh on average over the formats that the audience takes, None where one is not made
    yet."""

    width_px: int
    share: float
    size_bytes: int | None


class TakenRun(Noun):
    """Consecutive viewport widths at which screens of one density take one rung."""

    first: int
    last: int
    width_px: int


class TakenAt(Noun):
    density: float
    runs: tuple[TakenRun, ...]


class Tradeoff(Noun):
    """The best ladder of a number of files, and its waste as a share of the exact need."""

    files: int
    widths: tuple[int, ...]
    waste: float


class LadderReading(Noun):
    """The ladder of one group of spans, and what other numbers of files would come to. `letter` is
    the widest of its spans; `top_px` the width that it always has.

    `is_own`: the designer's own widths. `waste` and `curve` rest on the usual growth of bytes,
    `measured` on that of the files that are made (None before), whose exponent is `exponent`;
    `fitted` are then the best widths for as many files.
    """

    part: int
    letter: str
    spans: tuple[str, ...]
    crop_px: int
    top_px: int
    is_own: bool
    rungs: tuple[Rung, ...]
    waste: float
    curve: tuple[Tradeoff, ...]
    measured: float | None
    exponent: float | None
    fitted: tuple[int, ...] | None
    taken: tuple[TakenAt, ...]
