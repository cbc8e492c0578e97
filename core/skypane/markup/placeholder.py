"""A neutral picture for a frame that has none yet, with its px written on it (SVG 2).

The figures are drawn as lines, not set as type, so that they look the same wherever they are
drawn.
"""

from __future__ import annotations

from skypane.errors import NotThere
from skypane.files.names import file_stem, part_name
from skypane.files.renditions import span_word
from skypane.numerals import whole_px
from skypane.shown.nouns import PartPlan, Plan
from skypane.values import Noun

GROUND, INK = "#c9cdcb", "#6d7472"

#: Lines of each figure in a box of 4 × 6.
_FIGURES = {
    "0": "M2 0C.7 0 0 1.2 0 3S.7 6 2 6 4 4.8 4 3 3.3 0 2 0Z",
    "1": "M.8 1.2L2.4 0V6",
    "2": "M.2 1.6C.2 .6 1 0 2 0S3.8 .6 3.8 1.7C3.8 3 .6 4.4 0 6H4",
    "3": "M.3 1.2C.6 .4 1.2 0 2 0 3 0 3.7 .6 3.7 1.5S3 2.9 1.8 2.9C3.2 2.9 4 3.5 4 4.4S3.2 6 2 6"
    "C1 6 .3 5.6 0 4.7",
    "4": "M3 6V0L0 4.3H4",
    "5": "M3.7 0H.6L.3 2.7C.8 2.4 1.3 2.2 2 2.2 3.2 2.2 4 3 4 4.1S3.2 6 1.9 6C1 6 .3 5.6 0 4.8",
    "6": "M3.4 .6C3 .2 2.6 0 2.1 0 .8 0 0 1.4 0 3.4 0 5 .8 6 2 6S4 5.2 4 4.1 3.2 2.3 2.1 2.3"
    "C1 2.3 .2 3 0 4",
    "7": "M0 0H4L1.4 6",
    "8": "M2 2.8C1 2.8 .3 2.2 .3 1.4S1 0 2 0 3.7 .6 3.7 1.4 3 2.8 2 2.8 0 3.4 0 4.4 .8 6 2 6"
    " 4 5.4 4 4.4 3.2 2.8 2 2.8Z",
    "9": "M.6 5.4C1 5.8 1.4 6 1.9 6 3.2 6 4 4.6 4 2.6 4 1 3.2 0 2 0S0 .8 0 1.9 .8 3.7 1.9 3.7"
    "C3 3.7 3.8 3 4 2",
    "×": "M.6 2L3.4 4.8M3.4 2L.6 4.8",
}
_ADVANCE, _HIGH = 5.4, 6.0


class Placeholder(Noun):
    """One stand-in: for which span and density, its px, and what its file is called without an
    extension."""

    letter: str
    density: float
    width_px: int
    height_px: int
    stem: str


def placeholders_of(
    plan: Plan, part: PartPlan, letter: str | None = None
) -> tuple[Placeholder, ...]:
    """A stand-in for every span that waits for its picture, at each density that is offered: as
    large as the frame is at most, at the typical viewport height. Raises NotThere where none
    waits."""
    waiting = [p for p in part.waiting if letter in (None, p.span.letter)]
    if not waiting:
        raise NotThere("No picture is missing there, so there is nothing to stand in for.")
    widest, out = plan.spans[-1].letter, []
    called = part_name(plan.placement, part.index)
    for p in waiting:
        w, h = float(p.W[p.typical].max()), float(p.H[p.typical].max())
        word = None if p.span.letter == widest else span_word(plan.site, p.span.letter)
        for density in plan.site.densities:
            stem = file_stem(called, word, float(density), plan.site.naming, plan.placement.page)
            size = {"width_px": whole_px(w * density), "height_px": whole_px(h * density)}
            out.append(Placeholder(letter=p.span.letter, density=density, stem=stem, **size))
    return tuple(out)


def placeholder_svg(width_px: int, height_px: int) -> str:
    """A neutral picture of this size with its px written on it, and both diagonals, so that a cut
    is seen."""
    text = f"{width_px}×{height_px}"
    long = _ADVANCE * len(text) - (_ADVANCE - 4)
    scale = min(0.5 * width_px / long, 0.22 * height_px / _HIGH)
    x, y = (width_px - long * scale) / 2, (height_px - _HIGH * scale) / 2
    figures = "".join(
        f'<path d="{_FIGURES[c]}" transform="translate({i * _ADVANCE:g})"/>'
        for i, c in enumerate(text)
    )
    pad = 1.2 * scale
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{width_px}" height="{height_px}"'
        f' viewBox="0 0 {width_px} {height_px}">\n'
        f"  <title>{width_px} × {height_px} px</title>\n"
        f'  <rect width="{width_px}" height="{height_px}" fill="{GROUND}"/>\n'
        f'  <path d="M0 0L{width_px} {height_px}M{width_px} 0L0 {height_px}" stroke="#fff"'
        f' stroke-opacity=".55" stroke-width="{max(1, scale / 4):g}"/>\n'
        f'  <rect x="{x - pad:g}" y="{y - pad:g}" width="{long * scale + 2 * pad:g}"'
        f' height="{_HIGH * scale + 2 * pad:g}" fill="{GROUND}"/>\n'
        f'  <g transform="translate({x:g} {y:g}) scale({scale:g})" fill="none" stroke="{INK}"'
        f' stroke-width=".7" stroke-linecap="round" stroke-linejoin="round">{figures}</g>\n'
        "</svg>\n"
    )
