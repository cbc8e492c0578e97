"""Many items of one placement."""

from __future__ import annotations

from typing import NamedTuple

from skypane.geometry import Rect
from skypane.model import (
    HeightRule,
)
from skypane.reading.nouns.bands import Band
from skypane.values import Noun


class ItemReading(Noun):
    """One picture of many: what it shows in the widest span that shows it, and how many findings it
    has."""

    original: int | None
    name: str
    findings: int


class FailingItems(Noun):
    """Consecutive widths at which some items of the `of` that show fail, by their parts."""

    first: int
    last: int
    parts: tuple[int, ...]
    of: int


class CommonRatioReading(Noun):
    """The one ratio of cells that loses least in a span: the mean `loss` as a share, and the items
    whose keep areas do not fit. `unlike` are those whose own ratio is not `most`, the one that most
    have; `crops` the largest crop of the one ratio that holds each item's areas, None where none
    does. `gentle`: it costs so little that it comes before showing whole what is cut. `height` is
    what is said for all parts to have it, `follow` are the narrower spans that change with it."""

    letter: str
    ratio: float
    loss: float
    cuts: tuple[int, ...]
    most: float
    unlike: tuple[int, ...]
    crops: dict[int, Rect | None]
    gentle: bool
    height: HeightRule
    follow: tuple[str, ...]


class Sharpest(NamedTuple):
    """The greatest width of the box, in CSS px, at which no item is soft at `density`, and the item
    that decides; its own px."""

    width_px: float
    density: float
    part: int
    own_px: int


class ItemsReading(Noun):
    """Many pictures of one spot at a glance. `together` has the worst fate of all their keep areas,
    its shares are of items that are whole; `failing` says who is not. `ratio` and `sharpest` are of
    the one span that is being worked on; `largest` says which spans need how many px of the chosen
    item; `weight` is of all of them, where their files are read, and `budget_bytes` what they may
    weigh together. `crop_ratios`: those that all can be cropped to, width over height."""

    items: tuple[ItemReading, ...]
    one: str  # what each is called
    together: Band
    failing: tuple[FailingItems, ...]
    ratio: CommonRatioReading | None
    sharpest: Sharpest | None
    largest: str
    weight: Band | None = None
    budget_bytes: int
    crop_ratios: dict[str, float]
