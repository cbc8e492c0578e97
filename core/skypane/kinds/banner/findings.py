"""What is wrong with marks and insets on a picture."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from skypane.findings.covers import covers_area
from skypane.findings.lettering import too_low
from skypane.findings.rule import Case, Found, Matter, rule, widths_at
from skypane.galleries.logo import least_width
from skypane.shown.clear import COVERED
from skypane.shown.in_the_way import lying_on
from skypane.shown.lettering import lettering_of


@rule(
    "mark-opaque",
    "wrong",
    "words",
    "Bring it as SVG, or as PNG or WebP with transparency.",
    at="mark",
    kind="banner",
)
def mark_opaque(case: Case) -> Iterator[Found]:
    """A mark has no transparency: its own background covers the picture as a box."""
    if case.part.part.role != "mark":
        return
    opaque = {p.original.name: None for p in case.part.shown if not p.original.alpha}
    for name in opaque:
        letters = tuple(p.span.letter for p in case.part.shown if p.original.name == name)
        yield letters, f"{name} has no transparency and covers the picture as a box."


@rule(
    "mark-untrimmed", "wasteful", "words", "Trim its transparent edges.", at="trim", kind="banner"
)
def mark_untrimmed(case: Case) -> Iterator[Found]:
    """A mark has transparent edges: it looks smaller and stands elsewhere than its figures say."""
    if case.part.part.role != "mark":
        return
    told = set()
    for p in case.part.shown:
        found = case.pixels(p.original)
        if p.original.id in told or found is None or not found.alpha:
            continue
        told.add(p.original.id)
        alpha = found.by_width[0][..., 3]
        edges = (alpha[0], alpha[-1], alpha[:, 0], alpha[:, -1])
        if all(int(e.max()) == 0 for e in edges):
            yield (p.span.letter,), f"{p.original.name} has transparent edges on all four sides."


@rule(
    "mark-small",
    "wrong",
    "words",
    "Make the mark larger there, or show a cut with less lettering.",
    at="mark_percent",
    kind="banner",
)
def mark_small(case: Case) -> Iterator[Found]:
    """A mark is drawn so small that what is marked as lettering on its original cannot be read, as
    for the cuts of a logo."""
    if case.part.part.role != "mark":
        return
    for p in case.part.shown:
        cut = lettering_of(p)
        found = cut and too_low(p, cut, least_width(cut))
        if found:
            yield found


def _in_the_way(case: Case, role: str) -> Iterator[Found]:
    if case.part.part.role != role:
        return
    for p in case.part.shown:
        for lying in lying_on(case.plan, p.span.letter):
            if lying.span is not p:
                continue
            if lying.words.any():
                most = max(float(share.max()) for share in lying.texts.values())
                runs = widths_at(p.viewport_w, np.flatnonzero(lying.words))
                sentence = f"The {role} lies on the words {{where}}."
                yield Matter("words", p.span.letter, runs, most, sentence)
            for name, share in lying.areas.items():
                at = np.flatnonzero(share > COVERED)
                yield covers_area(f"The {role}", name, p, at, float(share.max()))


@rule(
    "mark-in-the-way",
    "wrong",
    "words",
    "Move the mark to another place, or make it smaller.",
    at="mark_place",
    kind="banner",
)
def mark_in_the_way(case: Case) -> Iterator[Found]:
    """A mark lies on the words or on a keep area of the picture."""
    yield from _in_the_way(case, "mark")


@rule(
    "inset-in-the-way",
    "wrong",
    "words",
    "Move the inset to another place, or make it smaller.",
    at="inset_place",
    kind="banner",
)
def inset_in_the_way(case: Case) -> Iterator[Found]:
    """An inset lies on the words or on a keep area of the picture."""
    yield from _in_the_way(case, "inset")
