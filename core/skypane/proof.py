"""Predictions for a delivered page: which file each viewport takes at each density and set of
supported formats."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from functools import partial
from typing import Annotated, Literal, NamedTuple

from pydantic import Field

from skypane.errors import InvalidPlan
from skypane.files.names import part_class, usual_of
from skypane.layouts import layout_of
from skypane.model import Placement, Site
from skypane.picks import Environment, Pick, pick
from skypane.picks.background import pick_background, read_background
from skypane.picks.choose import Reason
from skypane.picks.engines import TYPES
from skypane.picks.markup import BACKGROUND, INLINE, place_of, read_markup
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
    """`element` is the class of what shows it on the page, `background`: as its background."""

    case: Case
    span: str
    element: str
    background: bool
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


class Delivered(NamedTuple):
    """What of a delivered page shows one part: the class of its element, how a browser picks its
    file there, and the media conditions that this depends on."""

    element: str
    background: bool
    picks: Callable[[Environment], Pick]
    media: tuple[str, ...]

    @property
    def asks_for_orientation(self) -> bool:
        """Whether what shows depends on how the viewport stands (Media Queries Level 4, §4.4)."""
        return any("orientation" in media.lower() for media in self.media)


def element_of(placement: Placement, part: int) -> str:
    """The class of the element that shows a part, or what it stands in for. Raises InvalidPlan
    where the placement has no such part."""
    if part >= len(placement.parts):
        n = len(placement.parts)
        raise InvalidPlan(
            f"This export has {n} picture{'' if n == 1 else 's'}; number {part + 1} came later."
            " Export the placement again.",
            field="part",
        )
    usual = part if placement.parts[part].of is None else usual_of(placement, part)
    return part_class(placement, usual, bool(layout_of(placement).box))


def delivered(page: str, css: str, element: str) -> Delivered:
    """The part whose element has that class, on a delivered page with its style sheet. Raises
    InvalidPlan where there is none."""
    place = place_of(page, element)
    if place is None:
        raise InvalidPlan(
            f"Nothing of this export is called {element}: it came later. Export the placement"
            " again.",
            field="part",
        )
    if place == INLINE:
        return Delivered(element, False, _nothing, ())
    if place == BACKGROUND:
        rules = read_background(css, f".{element}::before")
        media = tuple(m for rule in rules for m in rule.media)
        return Delivered(element, True, partial(pick_background, rules), media)
    read = read_markup(page, place)
    media = tuple(s.media or "" for s in read.sources)
    return Delivered(element, False, partial(pick, read), media)


def _nothing(env: Environment) -> Pick:
    """What stands in the page itself fetches nothing."""
    why = "It stands in the page itself: nothing is fetched."
    return Pick(url=None, density=None, trace=(Reason("svg", True, why),))


def predict(
    site: Site, of: Delivered, files: Mapping[str, FileFact], asked: Iterable[Case]
) -> tuple[Prediction, ...]:
    """The pick for every case. `files` by the URL that the page writes."""
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
        found = of.picks(env)
        letter = next(
            (s.letter for s in spans if s.first <= case.width <= s.last),
            spans[-1 if case.width > site.widest else 0].letter,
        )
        out.append(
            Prediction(
                case=case,
                span=letter,
                element=of.element,
                background=of.background,
                url=found.url,
                file=files.get(found.url or ""),
                trace=found.trace,
                warnings=found.warnings,
            )
        )
    return tuple(out)
