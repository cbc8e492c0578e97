"""The cuts of a logo."""

from __future__ import annotations

from typing import Literal, NamedTuple

from skypane.reading.nouns import OwnReading
from skypane.values import Noun


class CutRun(NamedTuple):
    """Consecutive widths that call for one cut of a logo, by its place."""

    first: int
    last: int
    cut: int


class CutReading(Noun):
    """One cut of a logo: the width in CSS px from which it can be read, the viewport widths that
    call for it, and whether some span shows it in portrait."""

    original: int
    lettering_percent: float | None
    least_px: float
    shows: tuple[tuple[int, int], ...]
    in_portrait: bool


class LogoReading(OwnReading):
    """The cuts of a logo. `called_for` says which cut every width calls for, `breaks` the
    breakpoints that the site lacks for that, `spans` the fullest cut that can be read all over each
    span, `wants` those of spans that show another one. `edges` are the colours that cuts have all
    along their edge, by original. `portrait` says at which widths the typical viewport is at least
    as high as it is wide. Its band says whether the lettering can be read."""

    kind: Literal["logo"] = "logo"
    cuts: tuple[CutReading, ...]
    called_for: tuple[CutRun, ...]
    breaks: tuple[int, ...]
    spans: dict[str, int]
    wants: dict[str, int]
    edges: dict[int, str]
    portrait: tuple[tuple[int, int], ...]
