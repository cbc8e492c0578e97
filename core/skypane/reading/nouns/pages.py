"""A whole page."""

from __future__ import annotations

from skypane.reading.nouns.bands import Band, ViewportPoint
from skypane.reading.nouns.code import Pane
from skypane.values import Noun


class OnPage(Noun):
    """A placement of a page: the letters of the spans in which it shows, or why it cannot be
    computed."""

    name: str
    kind: str
    shows: tuple[str, ...]
    error: str | None


class PageSpan(Noun):
    """What holds for a page in one span; `own` are the fields that it sets itself, `order` places
    in the page's placements, `read_otherwise` whether they are read out in another one."""

    letter: str
    title: str
    first: int
    last: int
    head_px: float
    head_over: bool
    order: tuple[int, ...]
    read_otherwise: bool
    own: tuple[str, ...]


class PageOverflow(Noun):
    """Widths at which a placement is wider than the page: `by_px` CSS px at the worst of them."""

    placement: int
    first: int
    last: int
    by_px: float
    at: int


class LeadReading(Noun):
    """Which placement loads first. `proposed`: the one that the largest `share` of the audience
    sees first as a large picture; `leads`: those that are said to; by their place. `is_so`: that
    one alone does."""

    proposed: int | None
    share: float
    leads: tuple[int, ...]
    sentence: str
    is_so: bool


class PageReading(Noun):
    """Everything that is shown of a whole page. `bands`: whether it fits the width of the screen,
    what its pictures weigh, and those that load at once; `budget_bytes` is that of one picture for
    each of them. `moves`: slides are among it, and the script that goes with them runs."""

    narrowest: int
    widest: int
    heights: tuple[ViewportPoint, ...]
    budget_bytes: int
    spans: tuple[PageSpan, ...]
    placements: tuple[OnPage, ...]
    overflows: tuple[PageOverflow, ...]
    bands: tuple[Band, ...]
    pane: Pane
    moves: bool
    lead: LeadReading
