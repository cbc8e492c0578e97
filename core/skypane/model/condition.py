"""Conditions under which another picture shows than usual, as data: media features of Media Queries
Level 5."""

from __future__ import annotations

from collections.abc import Iterable
from typing import Annotated, Literal, get_args

from pydantic import AfterValidator

from skypane.values import Noun

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

#: How screens stand: as the site's heights say; all of them upright; all of them lying.
Turn = Literal["typical", "upright", "lying"]
#: Whether pictures are here, still on their way, or failed to come.
Pictures = Literal["here", "coming", "failed"]


#: The most modern format that a browser knows; it knows all that are older.
Knows = Literal["avif", "webp", "jpeg"]


class Conditions(Noun):
    """What a page is seen under: a dark colour scheme, less motion, how screens stand, whether its
    pictures are there, and which formats the browser `knows`. As written here: what usually
    holds."""

    dark: bool = False
    still: bool = False
    turn: Turn = "typical"
    pictures: Pictures = "here"
    knows: Knows = "avif"

    @property
    def features(self) -> tuple[Feature, ...]:
        """The features that hold on every screen; whether it stands upright depends on it."""
        held = {"dark": self.dark, "still": self.still}
        return tuple(f for f in FEATURES if held.get(f))


#: What usually holds.
AS_USUAL = Conditions()
