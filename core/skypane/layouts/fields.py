"""A field of the values of a kind: its name, unit, bounds and choices, as its type says them."""

from __future__ import annotations

from types import UnionType
from typing import Any, Literal, Union, get_args, get_origin

import annotated_types

from skypane.values import Noun

#: What the last word of a field's name says of its unit.
UNITS = {"px": "px", "percent": "%", "s": "s"}


class ValueFacts(Noun):
    """What a value is called, its unit ("" for a number of things and for what is no number), its
    bounds, whether it is a whole number, what can be chosen where it is a choice, and whether it
    can be another `under` conditions."""

    name: str
    unit: str
    least: float | None
    most: float | None
    whole: bool
    choices: tuple[str, ...]
    under: bool


def facts_of(values: type[Noun], name: str, *, under: bool = False) -> ValueFacts:
    """The facts of one value of a type. `under`: it can be another under conditions. Raises
    KeyError where there is no such value."""
    field = values.model_fields[name]
    bounds = [*field.metadata, *_metadata(field.annotation)]
    kinds = _kinds(field.annotation)
    return ValueFacts(
        name=field.title or name,
        unit=UNITS.get(name.rpartition("_")[2], ""),
        least=next((float(b.ge) for b in bounds if isinstance(b, annotated_types.Ge)), None),  # type: ignore[arg-type]
        most=next((float(b.le) for b in bounds if isinstance(b, annotated_types.Le)), None),  # type: ignore[arg-type]
        whole=int in kinds,
        choices=tuple(c for k in kinds if get_origin(k) is Literal for c in get_args(k)),
        under=under,
    )


def _metadata(annotation: Any) -> tuple[Any, ...]:
    """Metadata of all that an annotation is made of, its bounds among them."""
    mine = getattr(annotation, "__metadata__", ())
    return (*mine, *(m for a in get_args(annotation) for m in _metadata(a)))


def _kinds(annotation: Any) -> tuple[Any, ...]:
    """The types that a value may be of."""
    if hasattr(annotation, "__metadata__"):
        return _kinds(get_args(annotation)[0])
    if get_origin(annotation) in (Union, UnionType):
        return tuple(k for a in get_args(annotation) for k in _kinds(a))
    return (annotation,)
