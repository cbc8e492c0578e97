"""What can be said about where to look in an original: a value of its own, since placements are
saved with it."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, field_validator
from skypane import model


class Look(model.Noun):
    """Where an original's focal point and its areas are."""

    focal: tuple[model.Fraction, model.Fraction]
    areas: Annotated[tuple[model.Area, ...], Field(max_length=40)] = ()

    @field_validator("areas")
    @classmethod
    def _names_differ(cls, areas: tuple[model.Area, ...]) -> tuple[model.Area, ...]:
        names = [a.name for a in areas]
        double = next((n for n in names if names.count(n) > 1), None)
        if double is not None:
            raise ValueError(f"Two areas are called {double}. Give each a name of its own.")
        return areas
