"""What is known of each value of a kind beside the value: enough for a row that sets it."""

from __future__ import annotations

from skypane.layouts.fields import ValueFacts, facts_of
from skypane.layouts.layout import colours_of, values_of_kind

__all__ = ["ValueFacts", "value_facts"]


def value_facts(kind: str) -> dict[str, ValueFacts]:
    """The facts of each value of a kind, by its field; nothing where there is no such kind."""
    values = values_of_kind(kind)
    if values is None:
        return {}
    colours = colours_of(kind)
    return {name: facts_of(values, name, under=name in colours) for name in values.model_fields}
