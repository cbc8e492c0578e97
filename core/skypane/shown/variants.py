"""Parts that stand in for others while conditions hold: which of them shows, and what it is then
(rules §14)."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple

from skypane.model import FEATURES, Feature, Part, Placement, all_of
from skypane.shown.nouns import PartPlan, Plan, SpanPlan
from skypane.treatments import Resolved
from skypane.values import once


class Chosen(NamedTuple):
    """What holds for each usual part while some conditions do, per letter, and which part of the
    placement that is of."""

    when: tuple[Feature, ...] = ()
    resolved: tuple[dict[str, Resolved], ...] = ()
    places: tuple[dict[str, int], ...] = ()

    @property
    def original_ids(self) -> set[int]:
        ids = (r.effective.original for of_part in self.resolved for r in of_part.values())
        return {i for i in ids if i is not None}

    def place(self, part: int, letter: str) -> int:
        """The place in its placement of what shows for a part in a span."""
        return self.places[part][letter] if self.places else part


#: Nothing stands in for anything.
USUALLY = Chosen()


def together(whens: Sequence[tuple[Feature, ...]]) -> tuple[tuple[Feature, ...], ...]:
    """All conditions that can hold at once of those that are named, each set once, those with the
    fewest first."""
    found: set[tuple[Feature, ...]] = set()
    for when in whens:
        found |= {when, *(all_of((*when, *other)) for other in found)}
    return tuple(sorted(found, key=lambda when: (len(when), [FEATURES.index(f) for f in when])))


def chosen_for(
    placement: Placement, resolved: Sequence[dict[str, Resolved]], when: tuple[Feature, ...]
) -> Chosen:
    """Of all that may stand in for a part, per span, the first in the order of testing that does
    not let the usual one show."""
    held, places, variants = [], [], placement.variants()
    for index, part in enumerate(placement.usual):
        others = [
            i for i in variants.get(part.key or "", ()) if set(placement.parts[i].when) <= set(when)
        ]
        place = {
            letter: next((i for i in others if not resolved[i][letter].is_usual), index)
            for letter in resolved[index]
        }
        places.append(place)
        held.append({letter: resolved[i][letter] for letter, i in place.items()})
    return Chosen(when, tuple(held), tuple(places))


def variant_part(
    index: int, part: Part, usual: Plan, under: Plan, resolved: Mapping[str, Resolved]
) -> PartPlan:
    """What stands in for a part, in the placement as it is under its conditions; nothing where the
    usual one shows."""
    of = next(p for p in usual.parts if p.part.key == part.of)
    letters = frozenset(letter for letter, r in resolved.items() if r.is_usual)
    spans = tuple(
        _hidden(there) if there.span.letter in letters else under.parts[of.index].spans[at]
        for at, there in enumerate(of.spans)
    )
    held = {letter: r.handed for letter, r in resolved.items()}
    return PartPlan(index, part, spans, held, letters)


@once
def _hidden(p: SpanPlan) -> SpanPlan:
    """A span in which nothing shows of what could stand in for it."""
    cells = list(p.spot.cells)
    cell = cells[p.index]
    cells[p.index] = cell._replace(effective=replace(cell.effective, show="nothing"))
    return SpanPlan(p.layout, replace(p.spot, cells=tuple(cells)), p.index, p.frame)
