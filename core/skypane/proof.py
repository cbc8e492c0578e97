"""Predictions for a delivered page: which file each viewport takes at each density and set of
supported formats."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Annotated, Literal

from pydantic import Field

from skypane.model import Site
from skypane.picks import Environment, pick
from skypane.picks.choose import Reason
from skypane.picks.engines import TYPES
from skypane.picks.markup import read_markup
from skypane.values import Answer, Noun
from skypane.widths.frames import typical_height
from skypane.widths.spans import spans_of

Formats = Literal["all", "webp", "jpeg"]

#: Sets of formats as browsers have them: all of ours, those before AVIF, those before WebP.
_UNSUPPORTED: dict[Formats, frozenset[str]] = {
    "all": frozenset(),
    "webp": frozenset({"image/avif", "image/jxl"}),
    "jpeg": frozenset({"image/avif", "image/jxl", "image/webp"}),
}


class Case(Noun):
    """One browser: viewport in CSS px, density, formats it can show."""

    width: Annotated[int, Field(ge=1, le=100_000)]
    height: Annotated[int, Field(ge=1, le=100_000)]
    density: Annotated[float, Field(gt=0, le=100)] = 1
    formats: Formats = "all"
    color_scheme: Literal["light", "dark"] = "light"


class FileFact(Answer):
    """What a manifest says about one file."""

    width_px: int
    height_px: int
    size_bytes: int | None = None


class Prediction(Answer):
    case: Case
    span: str
    url: str | None
    file: FileFact | None
    trace: tuple[Reason, ...]
    warnings: tuple[str, ...] = ()


def cases(
    site: Site, densities: Iterable[float], formats: Formats = "all", *, turned: bool = False
) -> tuple[Case, ...]:
    """The first and the last width of every span, where a mistake of one px would show, at each
    density. `turned`: each in the other orientation too."""
    out = []
    for span in spans_of(site):
        for w in dict.fromkeys((span.first, span.last)):
            usual = typical_height(site, w)
            for height in (usual, _turned(w, usual)) if turned else (usual,):
                out += [Case(width=w, height=height, density=d, formats=formats) for d in densities]
    return tuple(out)


def _turned(width: int, height: int) -> int:
    """A height of the other orientation, in the proportion of 16 to 10."""
    return round(width / 1.6) if height >= width else round(width * 1.6)


def asks_for_orientation(markup: str, part: int = 0) -> bool:
    """Whether what shows depends on how the viewport stands: whether some source of the picture at
    that place asks for it (Media Queries Level 4, §4.4). Raises InvalidPlan where there is none."""
    read = read_markup(markup, part)
    return any("orientation" in (s.media or "").lower() for s in read.sources)


def predict(
    site: Site,
    markup: str,
    files: Mapping[str, FileFact],
    asked: Iterable[Case],
    part: int = 0,
) -> tuple[Prediction, ...]:
    """The pick for every case. `files` by the URL that the markup writes; `part` is the place of
    the picture in the markup. Raises InvalidPlan where there is none."""
    read = read_markup(markup, part)
    spans = spans_of(site)
    out = []
    for case in asked:
        env = Environment(
            width=case.width,
            height=case.height,
            density=case.density,
            color_scheme=case.color_scheme,
            types=TYPES - _UNSUPPORTED[case.formats],
        )
        found = pick(read, env)
        letter = next(
            (s.letter for s in spans if s.first <= case.width <= s.last),
            spans[-1 if case.width > site.widest else 0].letter,
        )
        out.append(
            Prediction(
                case=case,
                span=letter,
                url=found.url,
                file=files.get(found.url or ""),
                trace=found.trace,
                warnings=found.warnings,
            )
        )
    return tuple(out)
