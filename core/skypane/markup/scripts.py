"""The scripts that go with a delivery, and which placements want one. Without them all that they
move can be reached by scrolling."""

from __future__ import annotations

from collections.abc import Iterable
from functools import cache
from pathlib import Path

from skypane.layouts.arranged import turned_stops
from skypane.shown.nouns import Plan

#: What the scripts are called in a delivery, and the most bytes that each may have.
SLIDES, TURNS = "slides.js", "turns.js"
MOST_BYTES = {SLIDES: 6000, TURNS: 2000}


@cache
def script_text(name: str) -> str:
    """A script: the one that is delivered, and the one that panes run."""
    return Path(__file__).with_name(name).read_text(encoding="utf-8")


def scripts_of(plans: Iterable[Plan]) -> tuple[str, ...]:
    """The scripts that some placements want, each once."""
    found = {name for plan in plans for name in _scripts(plan)}
    return tuple(sorted(found))


def _scripts(plan: Plan) -> tuple[str, ...]:
    if plan.layout.written == "slides":
        return (SLIDES,)
    turns = plan.layout.written == "list" and any(turned_stops(s) > 1 for s in plan.spots)
    return (TURNS,) if turns else ()
