"""Consecutive widths with one verdict."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from typing import Any, Literal

import numpy as np

from skypane.values import Noun
from skypane.widths.frames import Floats

Verdict = Literal[
    "whole",
    "cut",
    "lost",
    "small",
    "sharp",
    "soft",
    "light",
    "heavy",
    "unknown",
    "readable",
    "faint",
    "clear",
    "covered",
    "fits",
    "grows",
    "one",
    "none",
    "several",
    "trimmed",
    "found",
]


class Run(Noun):
    """Consecutive widths with one verdict. `at_first`, `at_last` and `worst` are shares in 0–1 (in
    view, of the px needed, of an area that lies clear of words), contrast ratios, CSS px by which a
    banner falls short of its words (below 0), or numbers of placements."""

    first: int
    last: int
    verdict: Verdict
    at_first: float
    at_last: float
    worst: float
    worst_at: int


def equal_runs(values: np.ndarray[Any, Any]) -> list[tuple[int, int]]:
    """Consecutive equal values, as the place of the first and the place after the last."""
    if constant(values) and len(values):
        return [(0, len(values))]
    changes = (np.flatnonzero(values[1:] != values[:-1]) + 1).tolist()
    return list(zip([0, *changes], [*changes, len(values)], strict=True))


def runs_of(
    v: Floats,
    verdicts: np.ndarray[Any, Any],
    shares: Floats,
    words: Sequence[Verdict] | None = None,
) -> list[Run]:
    """Consecutive equal verdicts as runs. `verdicts` are words, or places in `words`; `shares` the
    value that each verdict rests on."""
    out = []
    for a, b in equal_runs(verdicts):
        worst = int(a + shares[a:b].argmin())
        out.append(
            Run(
                first=int(v[a]),
                last=int(v[b - 1]),
                verdict=words[verdicts[a]] if words else str(verdicts[a]),
                at_first=round(float(shares[a]), 4),
                at_last=round(float(shares[b - 1]), 4),
                worst=round(float(shares[worst]), 4),
                worst_at=int(v[worst]),
            )
        )
    return out


def merged(runs: list[Run]) -> tuple[Run, ...]:
    """Neighbouring runs with one verdict joined, across spans."""
    out: list[Run] = []
    for run in runs:
        last = out[-1] if out else None
        if last and last.verdict == run.verdict and last.last + 1 == run.first:
            worse = run if run.worst < last.worst else last
            out[-1] = last.model_copy(
                update={
                    "last": run.last,
                    "at_last": run.at_last,
                    "worst": worse.worst,
                    "worst_at": worse.worst_at,
                }
            )
        else:
            out.append(run)
    return tuple(out)


def within(runs: Iterable[Run], widths: Sequence[tuple[int, int]]) -> Iterator[Run]:
    """Runs as far as they lie in some stretches of widths."""
    for run in runs:
        for a, b in widths:
            first, last = max(a, run.first), min(b, run.last)
            if first <= last:
                yield run.model_copy(update={"first": first, "last": last})


def constant(values: np.ndarray[Any, Any]) -> bool:
    """Whether an array is known to hold one value throughout, as `fates` gives for an area that is
    whole everywhere."""
    return values.strides == (0,)


def stretches(v: Floats, true: np.ndarray[Any, Any]) -> list[tuple[int, int]]:
    """First and last width of every run of consecutive widths at which something is true."""
    return [(int(v[a]), int(v[b - 1])) for a, b in equal_runs(true) if true[a]]
