"""A placement: all that its desk shows."""

from __future__ import annotations

from collections.abc import Iterable
from functools import reduce
from operator import or_

from skypane.advice.remedies import Advice
from skypane.files.kept import Saving
from skypane.files.rows import FileRow
from skypane.handing_down import Origin
from skypane.layouts import value_classes
from skypane.layouts.facts import ValueFacts
from skypane.model import Finding
from skypane.reading.nouns.bands import Band, Verdicts, ViewportPoint
from skypane.reading.nouns.code import Code, PlacementPane
from skypane.reading.nouns.items import ItemsReading
from skypane.reading.nouns.ladders import LadderReading
from skypane.reading.nouns.own import OwnReading
from skypane.reading.nouns.spans import MovingSpan, OverallSafe, SpanDetail, SpanReading
from skypane.reading.nouns.words import WordsReading, WordsSpan
from skypane.shown.brief import Brief
from skypane.values import Noun


class MovingPart(Noun):
    """What changes of a part while something is dragged. `bands` are those of its keep areas and of
    its frame."""

    spans: tuple[MovingSpan, ...]
    bands: tuple[Band, ...]
    safe: tuple[OverallSafe, ...]


class Moving(Noun):
    """What changes on the desk while something is dragged. `parts` by their index: all of them, or
    of many items the one that is being worked on. `words` only where they belong to the kind,
    `items` only where it has many, `own` only where the kind reads something of its own, `one_of`
    only where the placement is one of a set. `verdicts` are the worst of all that is known of a
    width, per density; while something moves nothing is said of sharpness."""

    parts: dict[int, MovingPart]
    words: WordsReading | None = None
    items: ItemsReading | None = None
    own: OwnReading | None = None  # see `complete`
    one_of: Band | None = None
    verdicts: tuple[Verdicts, ...] = ()
    pane: PlacementPane


class PartReading(MovingPart):
    """A part with all that is told of its spans, and all its bands. `brief` only where a span waits
    for a picture, `detail` of the one span that is being worked on. `place`: which of the pictures
    of the delivered markup shows it; `called`: what it is among the parts in a word or two."""

    place: int
    called: str
    spans: tuple[SpanReading, ...]
    advice: tuple[Advice, ...]
    brief: Brief | None
    detail: SpanDetail | None


class LayoutSpan(Noun):
    """The values of the kind itself in one span, and the letter of the span that each is from, ""
    for a default. `notes` is what it has to say beside them."""

    letter: str
    notes: tuple[str, ...]
    values: Noun  # see `complete`
    origin: dict[str, Origin]


class Reading(Moving):
    """Everything that the desk shows of a placement. `values` says what is known of each value of
    its kind, by its field."""

    narrowest: int
    widest: int
    heights: tuple[ViewportPoint, ...]
    budget_bytes: int
    parts: dict[int, PartReading]  # type: ignore[assignment]  # each tells more than in Moving
    files: tuple[FileRow, ...]
    ladders: tuple[LadderReading, ...]
    savings: tuple[Saving, ...]
    layout: tuple[LayoutSpan, ...]
    values: dict[str, ValueFacts]
    findings: tuple[Finding, ...]
    code: Code


def complete() -> None:
    """Give the fields that hold what kinds say of their own the types of all kinds that are known,
    so that each is told whole. Called once all kinds of the package are there, and again by one
    that comes later."""

    def any_of(types: Iterable[object]) -> object:
        return reduce(or_, types)

    own = any_of((*OwnReading.__subclasses__(), None))
    types: tuple[tuple[type[Noun], str, object], ...] = (
        (WordsSpan, "values", any_of(value_classes(has_words=True))),
        (LayoutSpan, "values", any_of(value_classes())),
        (Moving, "own", own),
        (Reading, "own", own),
    )
    for noun, field, told in types:
        noun.model_fields[field].annotation = told  # type: ignore[assignment]  # a type made here
    for noun in (WordsSpan, WordsReading, LayoutSpan, Moving, Reading):
        noun.model_rebuild(force=True)
