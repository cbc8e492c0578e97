"""Conditions under which another picture shows than usual, as data: media features of Media Queries
Level 5."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Literal, get_args

from pydantic import AfterValidator

#: *dark*: a dark colour scheme is asked for; *portrait*: the viewport is at least as high as it is
#: wide; *still*: less motion is asked for.
Feature = Literal["dark", "portrait", "still"]
FEATURES: tuple[Feature, ...] = get_args(Feature)


def all_of(features: Iterable[Feature]) -> tuple[Feature, ...]:
    """Features that hold at once, each once, in their usual order."""
    held = set(features)
    return tuple(f for f in FEATURES if f in held)


#: When a feature holds, in words.
IN_WORDS: dict[Feature, str] = {
    "dark": "in the dark",
    "portrait": "in portrait",
    "still": "at rest",
}


def when_words(when: Iterable[Feature]) -> str:
    """When some features hold all at once: in the dark and in portrait."""
    return " and ".join(IN_WORDS[f] for f in when)


#: Features that have to hold all at once; none: always.
When = Annotated[tuple[Feature, ...], AfterValidator(all_of)]
