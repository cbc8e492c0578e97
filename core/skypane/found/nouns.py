"""What can be found."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable
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


#: Of one kind at most so many widths are told, the most frequent: nobody chooses from more.
MOST_OF_A_KIND = 50


class Found(Noun):
    """Widths by what they are, the most frequent first. `read` says what was looked through,
    `left_out` how many rarer widths are not told."""

    widths: tuple[FoundWidth, ...]
    read: str
    left_out: int = 0


class NothingFound(SkyPaneError):
    """There is nothing to choose from, and why."""


class Finds:
    """Widths as they turn up."""

    def __init__(self) -> None:
        self._found: dict[tuple[What, float], tuple[int, Callable[[], str]]] = {}

    def add(self, what: What, px: float, where: str | Callable[[], str]) -> None:
        """`where` may be worked out later: most places are never told."""
        key = (what, round(px, 4))
        count, first = self._found.get(key, (0, where if callable(where) else lambda: where))
        self._found[key] = (count + 1, first)

    def taken(self, read: str) -> Found:
        in_order = sorted(self._found.items(), key=lambda f: (f[0][0], -f[1][0], f[0][1]))
        seen: Counter[What] = Counter()
        widths = []
        for (what, px), (count, where) in in_order:
            seen[what] += 1
            if seen[what] <= MOST_OF_A_KIND:
                widths.append(FoundWidth(what=what, px=px, count=count, where=where()[:120]))
        return Found(widths=tuple(widths), read=read, left_out=len(in_order) - len(widths))
