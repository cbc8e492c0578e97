"""The typeface of words as CSS (CSS Fonts 4, `@font-face`), from files that go with the page."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence

from skypane.markup.lines import Line
from skypane.model import Typeface
from skypane.numerals import number
from skypane.shown.nouns import Plan
from skypane.words.faces import FACES, files_for
from skypane.words.fallbacks import Fitted, fitted

FOLDER = "fonts/"


def texts_of(plans: Iterable[Plan]) -> dict[Typeface, tuple[tuple[str, int], ...]]:
    """What some placements set in which typeface, each text with its weight."""
    found: dict[Typeface, list[tuple[str, int]]] = {}
    for p in plans:
        if texts := p.layout.texts(p.placement):
            found.setdefault(p.site.typeface, []).extend(texts)
    return {name: tuple(texts) for name, texts in found.items()}


def fetched_first(plans: Sequence[Plan]) -> tuple[str, ...]:
    """The files that the words of a page's lead are set in, else those of its first placement, from
    the page's folder: to be asked for before the style sheet has been read (HTML Standard §4.2.4,
    `preload`)."""
    lead = [p for p in plans if p.placement.lead] or plans
    found = texts_of(lead[:1]).items()
    return tuple(
        FOLDER + f.name for name, texts in found for f in files_for(name, (t for t, _ in texts))
    )


def font_lines(
    plans: Iterable[Plan],
    url: Callable[[str], str] = lambda name: FOLDER + name,
    *,
    waits: bool = True,
) -> tuple[Line, ...]:
    """The rules that name these files. `font-display: swap`: words can be read before the typeface
    is here; with `waits` in a face of the visitor's own that takes the same room."""
    rules: list[dict[str, str]] = []
    for name, texts in texts_of(plans).items():
        least, greatest = FACES[name].weights
        rules += [
            {
                "font-family": f'"{name}"',
                "src": f'url("{url(file.name)}") format("woff2")',
                "font-weight": f"{least} {greatest}",
                "font-display": "swap",
                "unicode-range": file.unicode_range,
            }
            for file in FACES[name].files
        ]
        rules += [_stand_in(name, f) for f in fitted(name, texts)] if waits else []
    lines = []
    for rule in rules:
        said = [f"  {k}: {v};" for k, v in rule.items()]
        lines += [Line(text) for text in ("@font-face {", *said, "}")]
    return tuple(lines)


def _stand_in(name: Typeface, f: Fitted) -> dict[str, str]:
    ranges = ", ".join(file.unicode_range for file in FACES[name].files)
    return {
        "font-family": f'"{f.family}"',
        "src": ", ".join(f'local("{name}")' for name in f.local),
        "font-weight": f"{f.weights[0]} {f.weights[1]}",
        "size-adjust": f"{number(f.size)}%",
        "ascent-override": f"{number(f.ascent)}%",
        "descent-override": f"{number(f.descent)}%",
        "line-gap-override": f"{number(f.line_gap)}%",
        "unicode-range": ranges,
    }
