"""The typeface of words as CSS (CSS Fonts 4, `@font-face`), from files that go with the page."""

from __future__ import annotations

from collections.abc import Callable, Iterable

from skypane.markup.lines import Line
from skypane.model import Typeface
from skypane.shown.nouns import Plan
from skypane.words.faces import FACES, FaceFile

FOLDER = "fonts/"


def typefaces_of(plans: Iterable[Plan]) -> tuple[Typeface, ...]:
    """The typefaces that the words of some placements are set in, each once."""
    found = (p.site.typeface for p in plans if p.layout.has_text(p.placement))
    return tuple(dict.fromkeys(found))


def font_files(plans: Iterable[Plan]) -> tuple[FaceFile, ...]:
    """The files that have to go with these placements."""
    return tuple(f for name in typefaces_of(plans) for f in FACES[name].files)


def font_lines(
    plans: Iterable[Plan], url: Callable[[str], str] = lambda name: FOLDER + name
) -> tuple[Line, ...]:
    """The rules that name these files. `font-display: swap`: words can be read before the typeface
    is here."""
    lines: list[Line] = []
    for name in typefaces_of(plans):
        least, greatest = FACES[name].weights
        for file in FACES[name].files:
            lines += [
                Line("@font-face {"),
                Line(f'  font-family: "{name}";'),
                Line(f'  src: url("{url(file.name)}") format("woff2");'),
                Line(f"  font-weight: {least} {greatest};"),
                Line("  font-display: swap;"),
                Line(f"  unicode-range: {file.unicode_range};"),
                Line("}"),
            ]
    return tuple(lines)
