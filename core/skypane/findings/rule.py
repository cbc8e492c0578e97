"""A rule: one function that looks at one part of a placement and says what it finds."""

from __future__ import annotations

import inspect
from collections.abc import Callable, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field
from functools import lru_cache
from typing import NamedTuple

import numpy as np

from skypane.files.renditions import Files
from skypane.files.rows import FileRow, file_rows
from skypane.model import Severity, Site, Step
from skypane.shown.nouns import PartPlan, Plan
from skypane.shown.sets import Siblings
from skypane.shown.under import Pixels, no_pixels
from skypane.widths.frames import Floats
from skypane.widths.runs import stretches


@dataclass(frozen=True)
class Case:
    """What a rule looks at: a part of a computed placement, and the files of that part; where the
    px of originals are to be had, the other placements of the page, and the bytes of files that are
    made, by key."""

    plan: Plan
    part: PartPlan
    files: Files
    pixels: Pixels = no_pixels
    siblings: Siblings = tuple
    made: Mapping[str, int] = field(default_factory=dict)

    @property
    def site(self) -> Site:
        return self.plan.site

    @property
    def rows(self) -> tuple[FileRow, ...]:
        return file_rows(self.files, {})


#: Runs of widths that a sentence names before it counts the rest.
MOST_RUNS = 3


class Matter(NamedTuple):
    """What a rule finds in one span. Those of a rule with the same `about` are one finding, for it
    is one thing to do: their spans and widths are put together, `what` they are of is listed, and
    the sentence is that of the worst. It holds `{where}` for the widths, and may hold `{what}`."""

    about: str
    letter: str
    runs: tuple[tuple[int, int], ...]
    worst: float
    sentence: str
    what: str = ""


#: What a rule finds: matters, or the letters of the spans (none: all of them) and the sentence.
Found = tuple[tuple[str, ...], str] | Matter
Look = Callable[[Case], Iterator[Found]]


@dataclass(frozen=True)
class Rule:
    """`id` stays as it is for ever: others may have written it down. `remedy` is the same wherever
    the rule finds something, and `at` the value, or what is done, that it speaks of ("" for none
    alone). `kind` is the only one that it looks at; "": all of them. `shows`: whether what it finds
    is to be seen at those widths on every screen, once all has loaded. `under`: whether it looks at
    the placement under conditions too, as what speaks of what lies on a picture does."""

    id: str
    severity: Severity
    step: Step
    remedy: str
    look: Look
    at: str = ""
    kind: str = ""
    shows: bool = True
    under: bool = False

    @property
    def about(self) -> str:
        """What it looks for, in a paragraph."""
        return inspect.getdoc(self.look) or ""


class Notice(NamedTuple):
    """What a rule has found, put together: the letters of spans, the widths where it looks at each
    width by itself, and the sentence."""

    letters: tuple[str, ...]
    runs: tuple[tuple[int, int], ...]
    sentence: str


def put_together(found: Iterable[Found]) -> Iterator[Notice]:
    """What a rule has found, one matter once."""
    matters: dict[str, list[Matter]] = {}
    plain: dict[str, tuple[str, ...]] = {}
    order: dict[tuple[str, str], None] = {}
    for each in found:
        if isinstance(each, Matter):
            matters.setdefault(each.about, []).append(each)
            order["matter", each.about] = None
        else:
            letters, sentence = each
            plain[sentence] = tuple(dict.fromkeys((*plain.get(sentence, ()), *letters)))
            order["plain", sentence] = None
    for kind, about in order:
        if kind == "plain":
            yield Notice(plain[about], (), about)
            continue
        of = matters[about]
        worst = max(of, key=lambda m: m.worst)
        letters = tuple(dict.fromkeys(m.letter for m in of))
        first, *others = dict.fromkeys(m.what for m in of)
        what = listed([first, *(name[:1].lower() + name[1:] for name in others)])
        runs = tuple(_joined(run for m in of for run in m.runs))
        sentence = worst.sentence.replace("{where}", where_of(runs)).replace("{what}", what)
        yield Notice(letters, runs, sentence)


def plain(name: str) -> str:
    """A name as it may stand in the sentence of a matter: nothing in it is filled in."""
    return name.replace("{", "(").replace("}", ")")


def listed(names: Iterable[str]) -> str:
    """Some names in a sentence: one, two and three."""
    *first, last = names
    return f"{', '.join(first)} and {last}" if first else last


def _joined(runs: Iterable[tuple[int, int]]) -> list[tuple[int, int]]:
    """Runs of widths in order, those that lie side by side as one."""
    joined: list[tuple[int, int]] = []
    for first, last in sorted(set(runs)):
        if joined and first <= joined[-1][1] + 1:
            joined[-1] = (joined[-1][0], max(last, joined[-1][1]))
        else:
            joined.append((first, last))
    return joined


def where_of(runs: Iterable[tuple[int, int]]) -> str:
    """Runs of widths in words, those that lie side by side as one."""
    joined = _joined(runs)
    if len(joined) > MOST_RUNS and all(a == b for a, b in joined):
        return f"at {len(joined)} widths from {joined[0][0]} to {joined[-1][1]} px"
    if len(joined) > MOST_RUNS:
        return f"from {joined[0][0]} to {joined[-1][1]} px, in {len(joined)} runs of widths"
    each = [f"at {a} px" if a == b else f"from {a} to {b} px" for a, b in joined]
    return listed(each)


def widths_at(v: Floats, at: np.ndarray) -> tuple[tuple[int, int], ...]:
    """Some widths, by their places, as runs."""
    true = np.zeros(len(v), dtype=bool)
    true[at] = True
    return tuple(stretches(v, true))


RULES: list[Rule] = []
#: The rooms of rules in the order in which findings are told: what has to be said first, then step
#: by step. What kinds say of their own comes where `KINDS` stands.
KINDS = "skypane.kinds"
ORDER = (
    *(f"skypane.findings.{name}" for name in ("frame", "aim", "words", "page", "sets", "items")),
    KINDS,
    *(f"skypane.findings.{name}" for name in ("files", "code")),
)


def rules() -> Sequence[Rule]:
    """All rules, those of kinds among them, in the order in which findings are told."""
    return _in_order(len(RULES))


@lru_cache(maxsize=1)
def _in_order(n: int) -> Sequence[Rule]:
    def place(each: Rule) -> int:
        room = each.look.__module__
        return ORDER.index(room if room in ORDER else KINDS)

    return tuple(sorted(RULES[:n], key=place))


def rule(
    id: str,
    severity: Severity,
    step: Step,
    remedy: str,
    *,
    at: str = "",
    kind: str = "",
    shows: bool = True,
    under: bool = False,
) -> Callable[[Look], Look]:
    """Make a function a rule. Its docstring says what it looks for, and why."""

    def made(look: Look) -> Look:
        RULES.append(Rule(id, severity, step, remedy, look, at, kind, shows, under))
        return look

    return made
