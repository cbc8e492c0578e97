"""Placements of which exactly one shows at every width: two heads, one in the page's head and one
in a column that folds away.

All placements of a site change at the same conditions, in one cascade, so that what is true of a
span is true of every width in it, fractional ones included (rules §1).
"""

from __future__ import annotations

from collections.abc import Callable, Sequence

from skypane.model import Placement, Site
from skypane.treatments import resolve

#: Gives the other placements of the page. Asked only for a placement that is in a set.
Siblings = Callable[[], Sequence[Placement]]


def shown_of_set(
    site: Site, placement: Placement, siblings: Siblings
) -> dict[str, tuple[str, ...]] | None:
    """Per letter the names of those of the placement's set that show there; None where it is in
    none."""
    if placement.one_of is None:
        return None
    mine = [placement, *(p for p in siblings() if p.one_of == placement.one_of)]
    shown: dict[str, list[str]] = {}
    for each in mine:
        first = resolve(site, each)[0]
        for letter, held in first.items():
            found = shown.setdefault(letter, [])
            if held.effective.show != "nothing":
                found.append(each.name)
    return {letter: tuple(names) for letter, names in shown.items()}
