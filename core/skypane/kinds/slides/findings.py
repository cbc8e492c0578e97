"""What is wrong with pictures that take turns."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from skypane.findings.rule import Case, Found, Matter, plain, rule, widths_at
from skypane.galleries.ratio import unlike_most
from skypane.kinds.slides.row import row_of, stops_of
from skypane.layouts import Spot
from skypane.shown.clear import COVERED
from skypane.shown.in_the_way import covered_by_kind


def _spots(case: Case) -> Iterator[Spot]:
    yield from (spot for spot in case.plan.spots if spot.shown)


@rule(
    "slides-unlike",
    "wrong",
    "frame",
    "Give all slides one ratio; Aim says which loses least.",
    kind="slides",
)
def slides_unlike(case: Case) -> Iterator[Found]:
    """Slides keep ratios of their own that differ: what stands below them moves with every change
    (rules §12)."""
    if case.part.index:
        return
    for spot in _spots(case):
        shown = spot.shown
        width = row_of(spot).slide
        heights = [spot.frame_heights(i, width) for i in shown]
        uneven = max(float(np.abs(h - heights[0]).max()) for h in heights)
        if uneven > 1:
            _, unlike = unlike_most([spot.cells[i].ratio for i in shown])
            named = ", ".join(f"{shown[i] + 1}" for i in unlike[:8])
            yield (
                (spot.span.letter,),
                f"Slides differ in height by up to {round(uneven)} px: {len(unlike)} of"
                f" {len(shown)} are out of line, {named}.",
            )


@rule(
    "controls-on-area",
    "wrong",
    "frame",
    "Put them under the picture there, or elsewhere on it.",
    at="controls_place",
    kind="slides",
)
def controls_on_area(case: Case) -> Iterator[Found]:
    """Dots, numbers or arrows lie on a keep area (common practice)."""
    for p in case.part.shown:
        for name, share in covered_by_kind(case.part, p, case.plan).items():
            at = np.flatnonzero(share > COVERED)
            most = float(share.max())
            yield Matter(
                name,
                p.span.letter,
                widths_at(p.viewport_w, at),
                most,
                f"The controls cover {plain(name)} {{where}}, at most"
                f" {max(1, round(most * 100))} % of it.",
            )


@rule(
    "slides-rest",
    "wasteful",
    "frame",
    "Bring another picture, or make it a plain picture.",
    kind="slides",
)
def slides_rest(case: Case) -> Iterator[Found]:
    """A slideshow with nothing to change to: one slide, or all of them in view at once."""
    if case.part.index:
        return
    for spot in _spots(case):
        # one that waits for its first picture is not told so
        if stops_of(spot) < 2 and any(c.effective.original is not None for c in spot.cells):
            n = len(spot.shown)
            why = f"all {n} slides show at once" if n > 1 else "it has one slide"
            yield (spot.span.letter,), f"It never changes there: {why}."
