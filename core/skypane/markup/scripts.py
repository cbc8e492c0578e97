"""The scripts that go with a delivery, and which placements want one. Without them all that they
move can be reached by scrolling. A kind brings its own."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import cache
from pathlib import Path
from typing import NamedTuple

from skypane.shown.nouns import Plan


class Script(NamedTuple):
    """A script: the one that is delivered, and the one that panes run. `is_wanted` tells which
    placements want it, `what` it does and what is so without it in a sentence, `moves` whether it
    moves what shows; it has at most `most_bytes`."""

    path: Path
    most_bytes: int
    is_wanted: Callable[[Plan], bool]
    what: str = "Moves what takes turns; without it that is a row that is scrolled."
    moves: bool = False

    @property
    def name(self) -> str:
        """What it is called in a delivery."""
        return self.path.name


SCRIPTS: dict[str, Script] = {}


def brings(script: Script) -> Script:
    """Make a script known, by its name."""
    SCRIPTS[script.name] = script
    return script


@cache
def script_text(name: str) -> str:
    """The text of a script. Raises KeyError where there is none of that name."""
    return SCRIPTS[name].path.read_text(encoding="utf-8")


def scripts_of(plans: Iterable[Plan]) -> tuple[str, ...]:
    """The names of the scripts that some placements want, each once."""
    found = {s.name for plan in plans for s in SCRIPTS.values() if s.is_wanted(plan)}
    return tuple(sorted(found))


def is_moved(plans: Iterable[Plan]) -> bool:
    """Whether a script moves what one of some placements shows."""
    return any(s.moves and s.is_wanted(plan) for plan in plans for s in SCRIPTS.values())
