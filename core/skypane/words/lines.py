"""Where text breaks into lines, at every width at once.

Lines are filled as browsers fill them (CSS Text 3 §5): as much as fits, broken where Unicode allows
it (UAX 14), trailing spaces hanging; what fits in no line is broken between graphemes
(`overflow-wrap: anywhere`). A line feed is a break of its own (`white-space: pre-line`).
"""

from __future__ import annotations

import re
from bisect import bisect_right
from collections.abc import Callable
from functools import lru_cache
from typing import NamedTuple

import numpy as np
from uniseg.graphemecluster import grapheme_cluster_boundaries
from uniseg.linebreak import line_break_boundaries

from skypane.model import Typeface
from skypane.widths.frames import Floats
from skypane.words.faces import Advances, advances

#: Lengths are laid out in 1/64 px (docs/chromium.md): less than that is no reason to break.
_SLACK_PX = 1 / 64


class _Paragraph(NamedTuple):
    """What can be a line: `breaks` are characters after which a line may end, in order, the last
    one being the end; `ends` what a line would measure that ends there, in em from the start,
    without the spaces that hang; `graphemes` and `grapheme_ends` the same for every grapheme."""

    set: Advances
    breaks: tuple[int, ...]
    ends: tuple[float, ...]
    graphemes: tuple[int, ...]
    grapheme_ends: tuple[float, ...]


#: White space that folds (CSS Text 3 §4.1); a no-break space is none.
_FOLDS = re.compile(r"[ \t\f]+")


def lines_of(text: str) -> list[str]:
    """The lines that a text is made of, as `white-space: pre-line` shows them."""
    return [_FOLDS.sub(" ", line).strip(" ") for line in text.strip(" \t\f\n").split("\n")]


#: Punctuation that keeps to the next word, or to the one before, even over a space (UAX 14, LB13 to
#: LB17).
_OVER_SPACES = re.compile(r"[(\[{«‹„“‘—] | [)\]}!?/;:,.»›”’%…—]")
_PIECE = re.compile(r"[^ ]+ *| +")


def _at_pieces(text: str, within: Callable[[str], tuple[int, ...]]) -> list[int]:
    """Places in a text, ascending, the end among them. Word by word, since most of a text stays as
    it is while somebody types; all at once where punctuation reaches over a space."""
    if _OVER_SPACES.search(text):
        return list(within(text))
    return [m.start() + at for m in _PIECE.finditer(text) for at in within(m[0])]


@lru_cache(maxsize=4096)
def _breaks_in(text: str) -> tuple[int, ...]:
    if text.isascii() and text.rstrip(" ").isalnum():  # no break inside
        return (len(text),)
    found = [b for b in line_break_boundaries(text) if b]
    return tuple(found if found and found[-1] == len(text) else [*found, len(text)])


@lru_cache(maxsize=4096)
def _graphemes_in(text: str) -> tuple[int, ...]:
    if text.isascii():  # without line ends, which are taken out before
        return tuple(range(1, len(text) + 1))
    return tuple(g for g in grapheme_cluster_boundaries(text) if g)


@lru_cache(maxsize=256)
def _paragraphs(typeface: Typeface, weight: int, text: str) -> tuple[_Paragraph, ...]:
    out = []
    for said in lines_of(text):
        found = advances(typeface, weight, said)
        breaks = _at_pieces(said, _breaks_in) if said else []
        ends = tuple(found.width(0, len(said[:b].rstrip(" "))) for b in breaks)
        graphemes = tuple(_at_pieces(said, _graphemes_in)) if said else ()
        grapheme_ends = tuple(found.width(0, g) for g in graphemes)
        out.append(_Paragraph(found, tuple(breaks), ends, graphemes, grapheme_ends))
    return tuple(out)


def _filled(paragraph: _Paragraph, room: float) -> list[float]:
    """The widths of a paragraph's lines in em, at least one line; `room` in em."""
    widths: list[float] = []
    start, last = 0, len(paragraph.breaks)
    i = 0
    while i < last:
        before = float(paragraph.set.ends[start - 1]) if start else 0.0
        j = bisect_right(paragraph.ends, before + room, lo=i) - 1
        if j >= i:
            widths.append(paragraph.ends[j] - before)
            start, i = paragraph.breaks[j], j + 1
            continue
        # not even the first piece fits: broken between graphemes, at least one to a line
        k = bisect_right(paragraph.graphemes, start)
        at = max(k, bisect_right(paragraph.grapheme_ends, before + room, lo=k) - 1)
        widths.append(paragraph.grapheme_ends[at] - before)
        start = paragraph.graphemes[at]
        if start == paragraph.breaks[i]:
            i += 1
    return widths or [0.0]


class Lines(NamedTuple):
    """Per width asked for the number of lines and the width of the longest, in px."""

    n: np.ndarray
    longest: Floats


def lines_at(typeface: Typeface, weight: int, size_px: float, text: str, rooms: Floats) -> Lines:
    """The lines of a text in every room, given in CSS px.

    Going down from the widest room, the lines stay the same until the longest of them no longer
    fits: so only as many layouts are worked out as there are different ones.
    """
    paragraphs = _paragraphs(typeface, weight, text)
    flat = np.round(rooms.ravel(), 6)
    n, longest = np.zeros(flat.shape, dtype=np.int64), np.zeros(flat.shape)
    order = np.argsort(flat, kind="stable")[::-1]
    at = 0
    while at < order.size:
        room = float(flat[order[at]])
        widths = [w for p in paragraphs for w in _filled(p, (room + _SLACK_PX) / size_px)]
        wide = max(widths) * size_px
        # the same lines in every narrower room that the longest still fits
        until = at + 1
        while until < order.size and flat[order[until]] + _SLACK_PX >= wide and wide <= room:
            until += 1
        n[order[at:until]] = len(widths)
        longest[order[at:until]] = wide
        at = until
    return Lines(n.reshape(rooms.shape), longest.reshape(rooms.shape))


def longest_piece(typeface: Typeface, weight: int, text: str) -> float:
    """The widest piece that Unicode does not let break, in em: in a narrower room it is broken all
    the same."""
    widest = 0.0
    for p in _paragraphs(typeface, weight, text):
        start = 0
        for after, end in zip(p.breaks, p.ends, strict=True):
            before = float(p.set.ends[start - 1]) if start else 0.0
            widest, start = max(widest, end - before), after
    return widest


def unset(typeface: Typeface, weight: int, text: str) -> tuple[str, ...]:
    """The characters that the typeface has no glyph for."""
    found = (p.set.guessed for p in _paragraphs(typeface, weight, text))
    return tuple(dict.fromkeys(c for each in found for c in each))
