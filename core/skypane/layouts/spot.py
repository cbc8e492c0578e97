"""A span of a placement as its layout sees it, and the frames that come of it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import NamedTuple

import numpy as np

from skypane.model import Container, HeightRange, Item, Role, Typeface, Words
from skypane.treatments import Effective
from skypane.values import Noun
from skypane.widths.frames import (
    Floats,
    Viewports,
    depends_on_viewport_height,
    frame_heights,
    viewports_of,
)
from skypane.widths.spans import Span


class Cell(NamedTuple):
    """A part in one span as its layout sees it. `ratio` is that of what it shows, width over
    height; `natural` the same in whole image px."""

    effective: Effective
    ratio: float
    natural: tuple[int, int]
    role: Role | None = None
    item: Item | None = None

    @property
    def facts(self) -> tuple[object, ...]:
        """All that the frames of many items follow from."""
        return (*self.settings, self.ratio, self.natural)

    @property
    def settings(self) -> tuple[object, ...]:
        """All that frames of many items follow from, but for the ratio of the picture."""
        e = self.effective
        return (e.width, e.height, e.stands, e.show, self.role, self.item)


class Facts:
    """A span by what its frames follow from: two in which only other things differ are equal."""

    def __init__(self, spot: Spot) -> None:
        self.spot = spot
        self.key = (*spot.bare, tuple(c.facts for c in spot.cells))
        self._hash = hash(self.key)

    def __hash__(self) -> int:
        return self._hash

    def __eq__(self, other: object) -> bool:
        return self is other or (isinstance(other, Facts) and self.key == other.key)


@dataclass(frozen=True)
class Spot:
    """One span of a placement as its layout sees it. `values` are the kind's own; `words` is None
    where there are none. `level` is the rank of its headings. `scrollbar_px` is what a classic
    scrollbar takes of the page's width, in CSS px; media conditions and viewport units know nothing
    of it (Media Queries 4 §4.1). `page_ground` is the colour behind all on its page."""

    span: Span
    heights: tuple[HeightRange, ...]
    container: Container
    cells: tuple[Cell, ...]
    values: Noun
    words: Words | None = None
    typeface: Typeface = "Instrument Sans"
    level: int = 2
    scrollbar_px: float = 0
    page_ground: str = "#ffffff"

    @property
    def bare(self) -> tuple[object, ...]:
        """All but the cells."""
        room = (self.span, self.heights, self.container, self.scrollbar_px)
        return (*room, self.values, self.words, self.typeface, self.level)

    @cached_property
    def facts(self) -> Facts:
        return Facts(self)

    def seen_after(self, before: Spot) -> None:
        """Take the facts of a spot that was there before, where they are the same: what has been
        worked out of them is found again without looking at every cell."""
        pairs = zip(before.cells, self.cells, strict=False)
        if (
            len(before.cells) == len(self.cells)
            and before.bare == self.bare
            and all(a is b or a.facts == b.facts for a, b in pairs)
        ):
            self.__dict__["facts"] = before.facts

    @property
    def viewports(self) -> Viewports:
        return viewports_of(self.heights, self.span.first, self.span.last)

    @property
    def page_widths(self) -> Floats:
        """The width of the page at every viewport width, in CSS px, (widths,)."""
        return self.viewports.widths - self.scrollbar_px

    @property
    def unscrolled(self) -> Spot:
        """The spot as it is where no scrollbar takes room: what style sheets are written for."""
        return replace(self, scrollbar_px=0) if self.scrollbar_px else self

    @property
    def shown(self) -> list[int]:
        """The parts that show anything, by their place."""
        return [i for i, c in enumerate(self.cells) if c.effective.show != "nothing"]

    def frame_heights(self, part: int, widths: Floats) -> Floats:
        """The height of a part's frame by its height rule, (heights, widths), where it is `widths`
        CSS px wide, (widths,)."""
        rule, viewports = self.cells[part].effective.height, self.viewports
        vh = viewports.heights if depends_on_viewport_height(rule) else viewports.heights[1:2]
        return frame_heights(rule, np.broadcast_to(widths, vh.shape), vh, self.cells[part].ratio)


class Frame(NamedTuple):
    """A part's frame at every viewport of a span, in CSS px. Arrays are (heights, widths), with one
    row where the frame does not depend on the viewport's height; `x` and `y` are from the top left
    corner of the placement's box."""

    W: Floats
    H: Floats
    x: Floats
    y: Floats
