"""At which widths each source of a picture is taken.

What a condition says of the width can change only where the width meets one of the numbers that
are written in it. So conditions are tried beside those numbers, not at every width.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from contextlib import suppress
from itertools import pairwise

import tinycss2

from skypane.picks.media import Environment, media_matches
from skypane.picks.values import Node, NotAValue, Reference, quantity

#: The viewport height that conditions are tried at, in CSS px.
HEIGHT_PX = 800
_RELATIVE = frozenset({"vw", "vi", "vb", "vmin", "vmax"})


def reach(media: Sequence[str | None], narrowest: int, widest: int) -> list[list[tuple[int, int]]]:
    """For each condition in testing order, the runs of widths at which it is the first that holds;
    `[]` means never.

    Finds sources that the wrong order makes unreachable.
    """
    runs: list[list[tuple[int, int]]] = [[] for _ in media]
    widths = _where_it_may_change([m for m in media if m is not None], narrowest, widest)
    for width, following in zip(widths, [*widths[1:], widest + 1], strict=True):
        env = Environment(width=width, height=HEIGHT_PX)
        first = next((i for i, m in enumerate(media) if m is None or media_matches(m, env)), None)
        if first is None:
            continue
        mine, last = runs[first], following - 1
        if mine and mine[-1][1] == width - 1:
            mine[-1] = (mine[-1][0], last)
        else:
            mine.append((width, last))
    return runs


def _where_it_may_change(media: Sequence[str], narrowest: int, widest: int) -> list[int]:
    """Widths between two of which every condition says the same as at the first of the two."""
    found = {narrowest}
    for text in dict.fromkeys(media):
        numbers = _numbers(tinycss2.parse_component_value_list(text))
        if numbers is None:
            return list(range(narrowest, widest + 1))
        for number in numbers:
            at = math.floor(min(max(number, narrowest - 1), widest + 1))
            found.update(range(at - 1, at + 3))  # beside it, on both sides
    return sorted(w for w in found if narrowest <= w <= widest)


def _numbers(nodes: Sequence[Node]) -> list[float] | None:
    """Every width that a condition could turn at: its lengths in CSS px, and its ratios times the
    height. None where it has to be tried at every width."""
    reference = Reference(0, HEIGHT_PX, Environment(0, HEIGHT_PX).engine)
    out = [float(HEIGHT_PX)]  # between portrait and landscape
    plain: list[float] = []
    for node in nodes:
        if node.type == "function":
            return None
        if node.type == "() block":
            inner = _numbers(node.content)
            if inner is None:
                return None
            out += inner
        elif node.type == "number":
            plain.append(float(node.value))
        elif node.type == "dimension":
            if node.lower_unit in _RELATIVE:
                return None
            with suppress(NotAValue):
                out.append(quantity(node, reference).value)
    out += [HEIGHT_PX * a for a in plain]
    out += [HEIGHT_PX * a / b for a, b in pairwise(plain) if b]
    return [n for n in out if math.isfinite(n)]
