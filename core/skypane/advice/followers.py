"""Which narrower spans change when something is set in a wider one: those to which it is handed
down."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from types import MappingProxyType
from typing import Any

from skypane.advice.remedies import Remedy
from skypane.handing_down import OF_ORIGINAL, Handed
from skypane.shown.nouns import PartPlan
from skypane.treatments import own_values

NONE: Mapping[str, Any] = MappingProxyType({})


def with_followers(
    steps: Iterable[Remedy], part: PartPlan, letter: str, handed_of_kind: Mapping[str, Handed]
) -> tuple[Remedy, ...]:
    """Remedies for a span, each with the narrower spans that follow it. `handed_of_kind`
    are the values of the kind itself, by letter."""
    return tuple(
        s.model_copy(
            update={
                "follow": tuple(
                    followers(
                        part,
                        letter,
                        own_values(s.treatment) if s.treatment else NONE,
                        s.layout,
                        handed_of_kind,
                    )
                )
            }
        )
        for s in steps
    )


def followers(
    part: PartPlan,
    letter: str,
    treatment: Mapping[str, Any],
    layout: Mapping[str, Any] = NONE,
    handed_of_kind: Mapping[str, Handed] = NONE,
) -> Iterator[str]:
    """The narrower spans, from the widest, to which values set in the span `letter` are handed down
    and that have another one now: of the treatment, and as JSON of the kind."""
    values = {**dict.fromkeys(OF_ORIGINAL if "original" in treatment else ()), **treatment}
    of_kind = dict(layout)
    for p in part.spans[: part.spans.index(part.of(letter))][::-1]:
        there = p.span.letter
        kept = part.handed[there].set_in(there)
        values = {f: v for f, v in values.items() if f not in kept}
        kept = handed_of_kind[there].set_in(there) if there in handed_of_kind else frozenset()
        of_kind = {f: v for f, v in of_kind.items() if f not in kept}
        now = p.spot.values.model_dump(mode="json") if of_kind else {}
        if any(getattr(p.effective, f) != v for f, v in values.items()) or any(
            now.get(f) != v for f, v in of_kind.items()
        ):
            yield there
