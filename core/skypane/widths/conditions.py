"""The media conditions that say spans (Media Queries Level 4, §2–4).

A browser takes the first source whose condition holds, so the order of testing is part of the rule:
narrowest first for `max-width` and `range`, widest first for `min-width`.
"""

from __future__ import annotations

from typing import NamedTuple

from skypane.model import Feature, MediaStyle
from skypane.widths.spans import Span


class Condition(NamedTuple):
    """When a browser takes a span's source. `media` is None for the span tested last, which needs
    no condition."""

    letter: str
    media: str | None


def upper_condition(last: int, style: MediaStyle) -> str:
    """True up to the width `last`: `(max-width: 599px)` or, leaving no hole for fractional widths,
    `(width < 600px)`."""
    return f"(width < {last + 1}px)" if style == "range" else f"(max-width: {last}px)"


def lower_condition(first: int) -> str:
    return f"(min-width: {first}px)"


#: How CSS asks for a feature (Media Queries Level 4 §4.4; Level 5 §12.1 and §12.5).
FEATURE_MEDIA: dict[Feature, str] = {
    "dark": "(prefers-color-scheme: dark)",
    "portrait": "(orientation: portrait)",
    "still": "(prefers-reduced-motion: reduce)",
}


def media_of(when: tuple[Feature, ...]) -> str:
    """A condition that is true where all features hold."""
    return " and ".join(FEATURE_MEDIA[f] for f in when)


def in_testing_order(spans: tuple[Span, ...], style: MediaStyle) -> tuple[Span, ...]:
    return spans[::-1] if style == "min-width" else spans


def conditions(spans: tuple[Span, ...], style: MediaStyle) -> tuple[Condition, ...]:
    """Conditions in testing order; exactly one, the last, is without. Works as well for spans that
    were joined."""
    ordered = in_testing_order(spans, style)
    return tuple(
        Condition(
            span.letter,
            (
                None
                if i == len(ordered) - 1
                else (
                    lower_condition(span.first)
                    if style == "min-width"
                    else upper_condition(span.last, style)
                )
            ),
        )
        for i, span in enumerate(ordered)
    )
