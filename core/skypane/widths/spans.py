"""Spans between breakpoints.

A breakpoint is the *last* width of a span; together the spans are every whole width from the
narrowest to the widest, each once.
"""

from __future__ import annotations

from typing import NamedTuple

from skypane.model import Site


class Span(NamedTuple):
    """A run of whole viewport widths, both ends included, in CSS px."""

    letter: str
    title: str
    first: int
    last: int


def letter_of(index: int) -> str:
    """Letter of the index-th span from the narrowest: A … Z."""
    return chr(ord("A") + index)


def spans_of(site: Site) -> tuple[Span, ...]:
    """The site's spans from the narrowest; together they are every width from narrowest to widest,
    each once."""
    firsts = (site.narrowest, *(b + 1 for b in site.breakpoints))
    lasts = (*site.breakpoints, site.widest)
    return tuple(
        Span(letter_of(i), site.titles.get(letter_of(i), ""), first, last)
        for i, (first, last) in enumerate(zip(firsts, lasts, strict=True))
    )


def places_of(site: Site, span: Span) -> slice:
    """Where the widths of a span are among all those of the site."""
    return slice(span.first - site.narrowest, span.last - site.narrowest + 1)


def retitled(before: Site, after: Site) -> Site:
    """The site after its breakpoints have changed in number, each title still on the widths that it
    was given to.

    A title goes with the last width of its span, its post; where that post is gone, to the span
    that has taken in its last width, unless that one has a title of its own.
    """
    if len(before.breakpoints) == len(after.breakpoints):
        return after
    new = spans_of(after)
    by_last = {s.last: s.letter for s in new}
    titled = [s for s in spans_of(before) if s.title]
    titles = {by_last[s.last]: s.title for s in titled if s.last in by_last}
    for s in titled:
        if s.last not in by_last:
            holder = next((n.letter for n in new if n.last >= s.last), new[-1].letter)
            titles.setdefault(holder, s.title)
    return after.model_copy(update={"titles": dict(sorted(titles.items()))})
