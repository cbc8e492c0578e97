"""What can be said about where to look in an original: a value of its own, since placements are
saved with it."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Annotated

from pydantic import Field, field_validator
from skypane import model


class Look(model.Noun):
    """Where an original's focal point and its areas are."""

    focal: tuple[model.Fraction, model.Fraction]
    areas: Annotated[tuple[model.Area, ...], Field(max_length=model.MOST_AREAS)] = ()

    @field_validator("areas")
    @classmethod
    def _names_differ(cls, areas: tuple[model.Area, ...]) -> tuple[model.Area, ...]:
        names = [a.name for a in areas]
        double = next((n for n in names if names.count(n) > 1), None)
        if double is not None:
            raise ValueError(f"Two areas are called {double}. Give each a name of its own.")
        return areas


MOST_LOOKS = 100
#: Looks by the id of their original.
Looks = Annotated[dict[int, Look], Field(max_length=MOST_LOOKS)]


def looked(
    originals: Mapping[int, model.Original], looks: Mapping[int, Look]
) -> dict[int, model.Original]:
    """The originals, those with other looks as they would be with them."""
    return {
        id_: (
            original.model_copy(update={"focal": looks[id_].focal, "areas": looks[id_].areas})
            if id_ in looks
            else original
        )
        for id_, original in originals.items()
    }
