"""A picture as the background of an element (rules §15; CSS Images 4 §4 `image-set()`; CSS
Backgrounds 3).

It lies in a pseudo-element that fills the frame, so that lengths of the frame (container units) can
place it. `background-size` and `background-position` show what `object-fit` and `object-position`
do. `image-set()` knows no widths: where files are offered by width, each run of widths at which the
same files suffice is one rule.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from typing import NamedTuple

import numpy as np

from skypane.files.groups import drawn_widths
from skypane.markup.css_rule import CssRule
from skypane.markup.elements import Addresses
from skypane.markup.types import TYPES
from skypane.model import MediaStyle, Rendition
from skypane.shown.nouns import PartPlan, ShownSpan, SpanPlan
from skypane.widths.conditions import lower_condition, media_of, upper_condition
from skypane.widths.frames import Floats
from skypane.widths.runs import equal_runs

#: What of a picture in a frame is called otherwise where it is a background.
_NAMES = {"object-fit": "background-size", "object-position": "background-position"}
#: What never changes of it.
FIXED = {"content": '""', "position": "absolute", "inset": "0", "background-repeat": "no-repeat"}
#: A file suffices that has so much less than the px needed, in CSS px: `sizes` says no more than
#: is drawn, to 1/64 px.
SLACK_PX = 1 / 64


def as_background(declarations: Mapping[str, str]) -> dict[str, str]:
    """Declarations of a picture in its frame as those of a background."""
    return {_NAMES.get(name, name): value for name, value in declarations.items()}


class Run(NamedTuple):
    """Neighbouring widths of one span at which the same files are offered: of each format, most
    modern first, the file for each density. No files: nothing is fetched."""

    first: int
    last: int
    files: tuple[tuple[tuple[float, Rendition], ...], ...]


def runs_of_span(
    p: SpanPlan, files: Sequence[Rendition], densities: Sequence[float]
) -> tuple[Run, ...]:
    """The runs of a span from the narrowest width. `files` are those that the span takes, by size,
    then by format."""
    if not isinstance(p, ShownSpan) or not files:
        return (Run(p.span.first, p.span.last, ()),)
    formats = tuple(dict.fromkeys(f.format for f in files))
    each = [sorted((f for f in files if f.format == x), key=lambda f: f.width_px) for x in formats]
    if files[0].density is not None:
        by_density = tuple(tuple((f.density or 1.0, f) for f in mine) for mine in each)
        return (Run(p.span.first, p.span.last, by_density),)
    drawn = drawn_widths(p)
    picks = [[_least(mine, drawn * d) for d in densities] for mine in each]
    table = np.array([at for mine in picks for at in mine]).T
    changes = np.unique(table, axis=0, return_inverse=True)[1].reshape(-1)
    first = p.span.first
    return tuple(
        Run(first + a, first + b - 1, _offered(each, picks, densities, a))
        for a, b in equal_runs(changes)
    )


def _least(files: Sequence[Rendition], needed: Floats) -> np.ndarray:
    """The place of the narrowest of ascending files that has the px needed at each width, else of
    the widest."""
    widths = np.array([f.width_px for f in files], dtype=float)
    return np.minimum(np.searchsorted(widths, needed - SLACK_PX), len(files) - 1)


def _offered(
    each: Sequence[Sequence[Rendition]],
    picks: Sequence[Sequence[np.ndarray]],
    densities: Sequence[float],
    at: int,
) -> tuple[tuple[tuple[float, Rendition], ...], ...]:
    """Per format each file once, with the least density that takes it."""
    out = []
    for files, mine in zip(each, picks, strict=True):
        found: dict[str, tuple[float, Rendition]] = {}
        for density, places in zip(densities, mine, strict=True):
            file = files[int(places[at])]
            found.setdefault(file.name, (density, file))
        out.append(tuple(found.values()))
    return tuple(out)


class Offering(NamedTuple):
    """What a background may take: the files of the part and of those that show in its place, each
    by the letters of spans; the densities that are offered, and where files are to be had."""

    own: Mapping[str, tuple[Rendition, ...]]
    others: Sequence[tuple[PartPlan, Mapping[str, tuple[Rendition, ...]]]]
    densities: Sequence[float]
    addresses: Addresses
    style: MediaStyle


def background_rules(part: PartPlan, name: str, offers: Offering) -> dict[str, list[CssRule]]:
    """The rules that name the files of a part, by the letter of their span. Each span says all that
    holds in it: what is usual, then under conditions, the fewest first; later rules win."""
    selector = f".{name}::before"
    out: dict[str, list[CssRule]] = {}
    for at, p in enumerate(part.spans):
        letter = p.span.letter
        rules = list(_rules(selector, p, offers.own.get(letter, ()), "", offers))
        for other, files in reversed(offers.others):
            if letter not in other.usual:
                media = media_of(other.part.when)
                rules += _rules(selector, other.spans[at], files.get(letter, ()), media, offers)
        out[letter] = rules
    return out


def _rules(
    selector: str, p: SpanPlan, files: Sequence[Rendition], when: str, offers: Offering
) -> Iterator[CssRule]:
    """The runs of one span, the one without a width first: later rules win."""
    runs = runs_of_span(p, files, offers.densities)
    lower = offers.style == "min-width"
    for i, run in enumerate(runs if lower else reversed(runs)):
        width = ""
        if i:
            width = lower_condition(run.first) if lower else upper_condition(run.last, offers.style)
        media = " and ".join(filter(None, (width, when)))
        yield CssRule((selector,), image_declarations(run, offers.addresses), media=media)


def image_declarations(run: Run, addresses: Addresses) -> tuple[str, ...]:
    """The files of a run. A browser that does not know `type()` in `image-set()` passes it over and
    has the plain file of the oldest format."""

    def url(of: Rendition) -> str:
        return f'url("{addresses(of)}")'

    if not run.files:
        return ("background-image: none;",)
    plain = run.files[-1][0][1]
    out = [f"background-image: {url(plain)};"]
    # of one format alone there is nothing to choose from
    formats = len(run.files) > 1
    candidates = [
        f'{url(f)} type("{TYPES[f.format]}") {d:g}x' if formats else f"{url(f)} {d:g}x"
        for mine in run.files
        for d, f in mine
    ]
    if len(candidates) > 1:
        inner = ",\n  ".join(candidates)
        out.append(f"background-image: image-set(\n  {inner});")
    return tuple(out)
