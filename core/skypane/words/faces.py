"""The typefaces that ship with Sky Pane, and how wide they set text.

HarfBuzz shapes the text, as browsers do; a file is the subset of one Unicode range, as the delivery
hands it over. What a face has no glyph for a browser takes from a font of its own, which cannot be
known here: its width is a guess, and said to be one.
"""

from __future__ import annotations

import unicodedata
from collections.abc import Iterable
from functools import cache, lru_cache
from pathlib import Path
from typing import NamedTuple

import numpy as np
import uharfbuzz as hb

from skypane.model import Typeface
from skypane.widths.frames import Floats

FOLDER = Path(__file__).parent / "files"


class FaceFile(NamedTuple):
    """One file of a typeface and the characters that browsers take from it (CSS Fonts 4,
    `unicode-range`)."""

    name: str
    unicode_range: str

    @property
    def path(self) -> Path:
        return FOLDER / self.name

    @property
    def unpacked(self) -> Path:
        """The typeface's tables without compression (OpenType), for what reads them here: to unpack
        WOFF 2 takes a third of a second."""
        return self.path.with_suffix(".ttf")


_LATIN = (
    "U+0000-00FF, U+0131, U+0152-0153, U+02BB-02BC, U+02C6, U+02DA, U+02DC, U+0304, U+0308,"
    " U+0329, U+2000-206F, U+20AC, U+2122, U+2191, U+2193, U+2212, U+2215, U+FEFF, U+FFFD"
)
_LATIN_EXT = (
    "U+0100-02BA, U+02BD-02C5, U+02C7-02CC, U+02CE-02D7, U+02DD-02FF, U+0304, U+0308, U+0329,"
    " U+1D00-1DBF, U+1E00-1E9F, U+1EF2-1EFF, U+2020, U+20A0-20AB, U+20AD-20C0, U+2113,"
    " U+2C60-2C7F, U+A720-A7FF"
)


class Face(NamedTuple):
    """A typeface: its files, the weights that they hold, and what a page falls back on."""

    name: Typeface
    files: tuple[FaceFile, ...]
    weights: tuple[int, int]
    fallback: str


def _typeface(name: Typeface, stem: str, weights: tuple[int, int], fallback: str) -> Face:
    files = (
        FaceFile(f"{stem}-latin.woff2", _LATIN),
        FaceFile(f"{stem}-latin-ext.woff2", _LATIN_EXT),
    )
    return Face(name, files, weights, fallback)


FACES: dict[Typeface, Face] = {
    f.name: f
    for f in (
        _typeface("Instrument Sans", "instrument-sans", (400, 700), "sans-serif"),
        _typeface("Newsreader", "newsreader", (200, 800), "serif"),
    )
}


class _Loaded(NamedTuple):
    font: hb.Font
    upem: int
    characters: frozenset[int]


@cache
def _face(file: FaceFile) -> tuple[hb.Face, frozenset[int]]:
    face = hb.Face(file.unpacked.read_bytes())
    return face, frozenset(face.unicodes)


@cache
def _loaded(file: FaceFile, weight: int) -> _Loaded:
    face, characters = _face(file)
    shaper = hb.Font(face)
    shaper.set_variations({"wght": weight})
    return _Loaded(shaper, face.upem, characters)


def load_all() -> None:
    """Read every file of every typeface now, for whoever answers sooner later."""
    for face in FACES.values():
        for file in face.files:
            _face(file)


class Advances(NamedTuple):
    """A text set in one line: `ends` is where each character ends, in em, the clusters of ligatures
    told at their first character; `guessed` are characters that the face has no glyph for."""

    ends: Floats
    guessed: tuple[str, ...]

    def width(self, first: int, after: int) -> float:
        """From one character to the one before another, in em."""
        start = self.ends[first - 1] if first else 0.0
        return float(self.ends[after - 1] - start) if after > first else 0.0


@lru_cache(maxsize=512)
def advances(typeface: Typeface, weight: int, text: str) -> Advances:
    """How far each character of a text moves the pen on, in em. Kerning and ligatures are those of
    the face (OpenType `GPOS`, `GSUB`)."""
    face = FACES[typeface]
    files = [_loaded(f, weight) for f in face.files]
    each = np.zeros(len(text))
    guessed: dict[str, None] = {}
    start = 0
    while start < len(text):
        owner = _owner(files, text[start])
        after = start + 1
        while after < len(text) and _owner(files, text[after]) is owner:
            after += 1
        run = text[start:after]
        if owner is None:
            each[start:after] = [_guess(c) for c in run]
            guessed |= dict.fromkeys(c for c in run if not c.isspace())
        else:
            each[start:after] = _shaped(owner, run)
        start = after
    return Advances(np.cumsum(each), tuple(guessed))


def _owner(files: list[_Loaded], character: str) -> _Loaded | None:
    if character in "\t\n":
        return files[0]
    return next((f for f in files if ord(character) in f.characters), None)


def _shaped(loaded: _Loaded, run: str) -> Floats:
    buffer = hb.Buffer()
    buffer.add_str(run.replace("\t", " ").replace("\n", " "))
    buffer.guess_segment_properties()
    hb.shape(loaded.font, buffer, {})
    each = np.zeros(len(run))
    for info, position in zip(buffer.glyph_infos, buffer.glyph_positions, strict=True):
        each[info.cluster] += position.x_advance / loaded.upem
    return each


def files_for(typeface: Typeface, texts: Iterable[str]) -> tuple[FaceFile, ...]:
    """The files of a typeface that browsers take any character of some texts from, white space
    aside."""
    files, least = FACES[typeface].files, FACES[typeface].weights[0]
    loaded = [_loaded(f, least) for f in files]
    asked = {c for text in texts for c in text if not c.isspace()}
    owners = {id(_owner(loaded, c)) for c in asked}
    return tuple(f for f, of in zip(files, loaded, strict=True) if id(of) in owners)


#: What characters of other fonts measure on average, in em (from memory of common system fonts).
_WIDE, _NARROW, _PICTURE = 1.0, 0.58, 1.25


def _guess(character: str) -> float:
    if unicodedata.combining(character) or unicodedata.category(character) in ("Mn", "Cf", "Me"):
        return 0.0
    if character.isspace():
        return 0.27
    if unicodedata.category(character) == "So":
        return _PICTURE
    return _WIDE if unicodedata.east_asian_width(character) in ("W", "F") else _NARROW
