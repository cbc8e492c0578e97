"""What can be found."""

from __future__ import annotations

from typing import Literal

from skypane.errors import SkyPaneError
from skypane.values import Noun

#: breakpoint: the last width of a span; container: a greatest width; gutter: room between columns;
#: margin: room beside a container; columns: how many columns a grid has; length: who knows.
What = Literal["breakpoint", "container", "gutter", "margin", "columns", "length"]


class FoundWidth(Noun):
    """One width in CSS px (of `columns`: their number), how often it is there, and where first."""

    what: What
    px: float
    count: int
    where: str


class Found(Noun):
    """Widths by what they are, the most frequent first. `read` says what was looked through."""

    widths: tuple[FoundWidth, ...]
    read: str


class NothingFound(SkyPaneError):
    """There is nothing to choose from, and why."""


class Finds:
    """Widths as they turn up."""

    def __init__(self) -> None:
        self._found: dict[tuple[What, float], tuple[int, str]] = {}

    def add(self, what: What, px: float, where: str) -> None:
        key = (what, round(px, 4))
        count, first = self._found.get(key, (0, where))
        self._found[key] = (count + 1, first)

    def told(self, read: str) -> Found:
        widths = [
            FoundWidth(what=what, px=px, count=count, where=where[:120])
            for (what, px), (count, where) in self._found.items()
        ]
        widths.sort(key=lambda w: (w.what, -w.count, w.px))
        return Found(widths=tuple(widths), read=read)
