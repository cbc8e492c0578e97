"""Spans between breakpoints and the media conditions that say them (Media Queries Level 4, §2–4).

A breakpoint is the *last* width of a span. A browser takes the first source whose condition holds, so the order of testing
is part of the rule: narrowest first for `max-width` and `range`, widest first for `min-width`.
"""

from __future__ import annotations

from typing import NamedTuple

from skypane.model import MediaStyle, Site


class Span(NamedTuple):
    """A run of whole viewport widths, both ends included, in CSS px."""

    letter: str
    title: str
    first: int
    last: int


class Condition(NamedTuple):
    """When a browser takes a span's source. `media` is None for the span tested last, which needs no condition."""

    letter: str
    media: str | None


def letter_of(index: int) -> str:
    """Letter of the index-th span from the narrowest: A … Z."""
    return chr(ord("A") + index)


def spans_of(site: Site) -> tuple[Span, ...]:
    """The site's spans from the narrowest; together they are every width from narrowest to widest, each once."""
    firsts = (site.narrowest, *(b + 1 for b in site.breakpoints))
    lasts = (*site.breakpoints, site.widest)
    return tuple(
        Span(letter_of(i), site.titles.get(letter_of(i), ""), first, last)
        for i, (first, last) in enumerate(zip(firsts, lasts, strict=True))
    )


def retitled(before: Site, after: Site) -> Site:
    """The site after its breakpoints have changed in number, each title still on the widths that it was given to.

    A title goes with the last width of its span, its post; where that post is gone, to the span that has taken in its last width,
    unless that one has a title of its own.
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


def upper_condition(last: int, style: MediaStyle) -> str:
    """True up to the width `last`: `(max-width: 599px)` or, leaving no hole for fractional widths, `(width < 600px)`."""
    return f"(width < {last + 1}px)" if style == "range" else f"(max-width: {last}px)"


def lower_condition(first: int) -> str:
    return f"(min-width: {first}px)"


def in_testing_order(spans: tuple[Span, ...], style: MediaStyle) -> tuple[Span, ...]:
    return spans[::-1] if style == "min-width" else spans


def conditions(spans: tuple[Span, ...], style: MediaStyle) -> tuple[Condition, ...]:
    """Conditions in testing order; exactly one, the last, is without. Works as well for spans that were joined."""
    ordered = in_testing_order(spans, style)
    return tuple(
        Condition(
            span.letter,
            None
            if i == len(ordered) - 1
            else lower_condition(span.first)
            if style == "min-width"
            else upper_condition(span.last, style),
        )
        for i, span in enumerate(ordered)
    )


def reach(media: list[str | None], narrowest: int, widest: int) -> list[list[tuple[int, int]]]:
    """For each condition in testing order, the runs of widths at which it is the first that holds; `[]` means never.

    Finds sources that the wrong order makes unreachable.
    """
    from skypane.picks.media import Environment, media_matches

    runs: list[list[tuple[int, int]]] = [[] for _ in media]
    for width in range(narrowest, widest + 1):
        env = Environment(width=width, height=800)
        for i, condition in enumerate(media):
            if condition is None or media_matches(condition, env):
                if runs[i] and runs[i][-1][1] == width - 1:
                    runs[i][-1] = (runs[i][-1][0], width)
                else:
                    runs[i].append((width, width))
                break
    return runs
