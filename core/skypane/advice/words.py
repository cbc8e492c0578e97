"""What can be done about the words of one span: what is wrong and what helps, the nine places, the
least scrim, the flattest ratio."""

from __future__ import annotations

from collections.abc import Mapping

from skypane.advice.advised import WordsAdvice
from skypane.advice.followers import with_followers
from skypane.advice.others import square_around
from skypane.advice.room import before_loading, covers, outgrows
from skypane.advice.unreadable import unreadable
from skypane.geometry import Rect
from skypane.handing_down import Handed
from skypane.numerals import number
from skypane.shown.flattest import flattest_ratio
from skypane.shown.nouns import PartPlan
from skypane.shown.places import PlaceRating, ratings
from skypane.shown.readable import (
    least_scrim,
    seen_in,
)
from skypane.shown.under import Pixels
from skypane.values import Noun


class StandIn(Noun):
    """A keep area that can stand in for the picture as an inset, and the square around it."""

    name: str
    original: int
    crop: Rect


class WordsDetail(Noun):
    """The words of the one span that is being worked on: all nine places, the least scrim, and the
    flattest ratio that holds keep areas and words. `scrim_why` says it where no strength passes."""

    letter: str
    places: tuple[PlaceRating, ...]
    least_strength: float | None
    scrim_why: str
    flattest: float | None
    advice: tuple[WordsAdvice, ...]
    stand_ins: tuple[StandIn, ...]


def words_detail(
    part: PartPlan, letter: str, pixels: Pixels, handed_of_kind: Mapping[str, Handed] | None = None
) -> WordsDetail:
    """What can be done about the words on a banner's picture, in one span; `handed_of_kind` are the
    values of the banner by letter, by which each remedy says which narrower spans follow it. Raises
    KeyError where there is no such span."""
    p = part.of(letter)
    seen, places = seen_in(p, pixels), ratings(p, pixels)
    least = least_scrim(p, pixels, seen)
    why = ""
    if least is not None and least.strength is None:
        why = (
            f"No strength of this scrim makes every width readable: the most that it gives is"
            f" {number(round(least.best * 100))} % of the contrast needed."
        )
    found = [
        a
        for a in (
            unreadable(p, pixels, seen, least, places),
            covers(p, pixels, places),
            outgrows(p),
            before_loading(p, pixels),
        )
        if a is not None
    ]
    return WordsDetail(
        letter=p.span.letter,
        places=places,
        least_strength=least.strength if least else None,
        scrim_why=why,
        flattest=flattest_ratio(p),
        advice=tuple(_with_followers(a, part, letter, handed_of_kind or {}) for a in found),
        stand_ins=stand_ins(part),
    )


def _with_followers(
    advice: WordsAdvice, part: PartPlan, letter: str, handed_of_kind: Mapping[str, Handed]
) -> WordsAdvice:
    steps = with_followers(advice.steps, part, letter, handed_of_kind)
    return advice.model_copy(update={"steps": steps})


def stand_ins(part: PartPlan) -> tuple[StandIn, ...]:
    """Every keep area of the originals that a part shows, the most important of each first."""
    originals = {p.original.id: p.original for p in part.shown}
    return tuple(
        StandIn(name=a.name, original=o.id, crop=square_around(a.rect, o, in_circle=True))
        for o in originals.values()
        for a in o.keeps
    )
