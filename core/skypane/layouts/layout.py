"""What a kind of placement has to say for itself.

A layout says, for every width, how large each part's frame is and where it stands in the
placement's box, and writes the CSS for that. All that comes after, from what shows to the markup,
is worked out per part and knows no kinds.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence
from typing import ClassVar, NamedTuple

from pydantic import ValidationError

from skypane.errors import InvalidPlan, sentence_of
from skypane.model import Container, Finding, HeightRange, Placement
from skypane.treatments import Effective
from skypane.values import Noun
from skypane.widths.frames import Floats, Piece, Viewports, viewports_of
from skypane.widths.spans import Span


class Cell(NamedTuple):
    """A part in one span as its layout sees it. `ratio` is that of what it shows, width over
    height; `natural` the same in whole image px."""

    effective: Effective
    ratio: float
    natural: tuple[int, int]


class Spot(NamedTuple):
    """One span of a placement as its layout sees it."""

    span: Span
    heights: tuple[HeightRange, ...]
    container: Container
    cells: tuple[Cell, ...]
    values: Noun

    @property
    def viewports(self) -> Viewports:
        return viewports_of(self.heights, self.span.first, self.span.last)


class Frame(NamedTuple):
    """A part's frame at every viewport of a span, in CSS px. Arrays are (heights, widths), with one
    row where the frame does not depend on the viewport's height; `x` and `y` are from the top left
    corner of the placement's box."""

    W: Floats
    H: Floats
    x: Floats
    y: Floats


class Nothing(Noun):
    """The values of a kind that has none of its own."""


class Layout(ABC):
    """How one kind lays its parts out. Every method is a pure function of a spot."""

    #: The kind's name as a placement says it.
    kind: ClassVar[str]
    #: What the kind can be told per span; every field is None where nothing is said.
    Values: ClassVar[type[Noun]] = Nothing
    #: The elements around all parts and around each, where there are any.
    box: ClassVar[str | None] = None
    cell: ClassVar[str | None] = None
    least_parts: ClassVar[int] = 1
    most_parts: ClassVar[int] = 1

    @abstractmethod
    def frame(self, spot: Spot, part: int) -> Frame:
        """A part's frame. Raises InvalidPlan where it cannot be had."""

    @abstractmethod
    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        """The width of the same frame as straight lines, for `sizes`."""

    @abstractmethod
    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        """Declarations of a part's frame, always the same ones."""

    def box_css(self, spot: Spot) -> dict[str, str]:
        """Declarations of the box around all parts, always the same ones."""
        return {}

    def findings(self, spots: Sequence[Spot]) -> list[Finding]:
        """What is wrong with the layout itself, looking at all spans from the narrowest."""
        return []

    def values(self, said: dict[str, object]) -> Noun:
        """The kind's own values, checked. Raises InvalidPlan."""
        try:
            return self.Values.model_validate(said)
        except ValidationError as error:
            raise InvalidPlan(sentence_of(error), field="layout") from None

    def check(self, placement: Placement) -> None:
        """Raises InvalidPlan where the placement has too few or too many parts."""
        n = len(placement.parts)
        if not self.least_parts <= n <= self.most_parts:
            least, most = self.least_parts, self.most_parts
            said = f"{least}" if least == most else f"{least} to {most}"
            raise InvalidPlan(
                f"A placement of the kind {self.kind} has {said} part{'s' if most > 1 else ''};"
                f" this one has {n}.",
                field="parts",
            )


_KNOWN: dict[str, Layout] = {}


def known(layout: type[Layout]) -> type[Layout]:
    """Make a layout known, under its kind."""
    _KNOWN[layout.kind] = layout()
    return layout


def kinds() -> Sequence[str]:
    return tuple(_KNOWN)


def layout_of(placement: Placement) -> Layout:
    """The layout of a placement's kind. Raises InvalidPlan where there is none, or where it cannot
    have so many parts."""
    layout = _KNOWN.get(placement.kind)
    if layout is None:
        raise InvalidPlan(
            f"There is no kind of placement called {placement.kind}. Use {' or '.join(_KNOWN)}.",
            field="kind",
        )
    layout.check(placement)
    return layout
