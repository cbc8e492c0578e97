"""Words on a picture."""

from __future__ import annotations

from skypane.advice.words import WordsDetail
from skypane.handing_down import Origin
from skypane.model import OnPicture
from skypane.reading.nouns.bands import Band
from skypane.values import Noun
from skypane.widths.curves import Curve
from skypane.words.block import TextId, TextKind


class LinesRun(Noun):
    """Consecutive widths at which a text has so many lines."""

    first: int
    last: int
    lines: int


class WordsText(Noun):
    """One text in one span: its content box in CSS px from the banner's top left corner at the
    typical viewport height, its lines, the contrast that it needs, and what it has on the
    background colour alone. `broken`: some word is too long for a line and is broken in two."""

    kind: TextKind
    id: TextId
    name: str
    size_px: float
    large: bool
    needed: float
    x: Curve
    y: Curve
    w: Curve
    h: Curve
    lines: tuple[LinesRun, ...]
    before_loading: float
    broken: bool


class BoxCurves(Noun):
    """A box in CSS px from the banner's top left corner, at the typical viewport height."""

    x: Curve
    y: Curve
    w: Curve
    h: Curve


class WordsSpan(Noun):
    """The words on a picture in one span: the values that hold, which the span sets itself, and the
    letter of the span that each is from ("" for a default).

    `banner` is its box, its x from the page's edge; `area` the picture's place in it, `block` that
    of the words, None where none show. `covers` are the keep areas that they lie on somewhere.
    """

    letter: str
    values: OnPicture  # of the kind, with all that it says beside
    own: tuple[str, ...]
    origin: dict[str, Origin]
    area: BoxCurves
    banner: BoxCurves
    block: BoxCurves | None
    texts: tuple[WordsText, ...]
    covers: tuple[str, ...]


class MarkSpan(Noun):
    """How wide a mark is drawn in one span, at its narrowest and its widest, and the width from
    which its lettering can be read, None where none is marked; all in CSS px."""

    letter: str
    narrowest_px: float
    widest_px: float
    readable_from_px: float | None


class WordsReading(Noun):
    """The words on a picture, over every width. `marks` are of the spans that show one. `measured`:
    whether the px of its pictures were to be had. `unset` are characters that the typeface has no
    glyph for, whose width is a guess. `detail` is of the one span that is being worked on."""

    spans: tuple[WordsSpan, ...]
    bands: tuple[Band, ...]
    marks: tuple[MarkSpan, ...]
    measured: bool
    unset: tuple[str, ...]
    detail: WordsDetail | None
