"""The `sizes` attribute (HTML Standard, "parsing a sizes attribute").

A list of [media condition] length; the first entry that parses and whose condition holds gives the
width. Nothing left, missing or empty means 100vw.
"""

from __future__ import annotations

from functools import lru_cache
from typing import NamedTuple

import tinycss2

from skypane.picks.engines import Engine
from skypane.picks.media import Environment, Evaluate, condition_of
from skypane.picks.values import Node, NotAValue, Reference, length, significant


class Size(NamedTuple):
    """The width in CSS px, and the entry it comes from in words."""

    width: float
    why: str


class _Entry(NamedTuple):
    text: str
    condition: Evaluate | None
    size: Node


@lru_cache(maxsize=4096)
def is_auto(text: str | None) -> bool:
    """Whether the attribute begins with the keyword auto (anything after it is only for browsers
    that lack it)."""
    if text is None:
        return False
    nodes = significant(tinycss2.parse_component_value_list(text))
    return bool(nodes) and nodes[0].type == "ident" and nodes[0].lower_value == "auto"


def evaluate_sizes(text: str | None, env: Environment) -> Size:
    """The width that `w` candidates are measured against. Never negative, never an error."""
    if text is not None:
        for entry in _entries(text, env.engine):
            if entry.condition is not None and entry.condition(env) is not True:
                continue
            try:
                return Size(max(0.0, length(entry.size, env.reference)), entry.text)
            except NotAValue:
                continue
    return Size(env.width, "100vw, for want of a size")


@lru_cache(maxsize=4096)
def _entries(text: str, engine: Engine) -> tuple[_Entry, ...]:
    entries: list[_Entry] = []
    part: list[Node] = []
    nodes = tinycss2.parse_component_value_list(text)
    for node in [*nodes, None]:
        if node is not None and not (node.type == "literal" and node.value == ","):
            part.append(node)
            continue
        entry = _entry(part, engine)
        part = []
        if entry is not None:
            entries.append(entry)
    return tuple(entries)


def _entry(nodes: list[Node], engine: Engine) -> _Entry | None:
    """One entry of the list, or None where it is bad and skipped."""
    parts = significant(nodes)
    if not parts:
        return None
    size, rest = parts[-1], parts[:-1]
    try:
        value = length(size, Reference(100, 100, engine))
        if value < 0 and size.type != "function":
            return None
        condition = condition_of(rest) if rest else None
    except NotAValue:
        return None
    return _Entry(tinycss2.serialize(nodes).strip(), condition, size)
