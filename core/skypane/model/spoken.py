"""What slideshows and turned rows say to screen readers, in the language of the site's pages."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, Field

from skypane.errors import written
from skypane.values import Noun

#: A language tag (RFC 5646, §2.1) as `lang` has it: a language, then a script, a region, variants.
Language = Annotated[
    str,
    written(
        r"^[A-Za-z]{2,8}(-[A-Za-z0-9]{1,8}){0,5}$",
        "It must be a language tag, such as en, de or pt-BR.",
    ),
]


def _not_empty(text: str) -> str:
    text = " ".join(text.split())
    if not text:
        raise ValueError("It must say something: a control without a name is of no use.")
    return text


def _with(*names: str) -> AfterValidator:
    """Phrases that have to hold these."""

    def check(text: str) -> str:
        if missing := [name for name in names if name not in text]:
            raise ValueError(f"It must hold {' and '.join(missing)}, so that each differs.")
        return text

    return AfterValidator(check)


Phrase = Annotated[str, Field(max_length=80), AfterValidator(_not_empty)]


class Spoken(Noun):
    """Names of controls and of what they move (WAI-ARIA Authoring Practices, carousel pattern).
    `{name}` stands for the placement's name, `{n}` for the number of a slide, `{all}` for how many
    there are."""

    carousel: Phrase = "carousel"
    slide: Phrase = "slide"
    slides: Annotated[Phrase, _with("{name}")] = "Slides of {name}"
    place: Annotated[Phrase, _with("{n}")] = "{n} of {all}"
    controls: Phrase = "Controls of the slides"
    stop: Phrase = "Stop the slides"
    start: Phrase = "Start the slides"
    previous: Phrase = "Previous slide"
    next: Phrase = "Next slide"
    go_to: Annotated[Phrase, _with("{n}")] = "Slide {n} of {all}"
    pages: Annotated[Phrase, _with("{name}")] = "Pages of {name}"
    previous_page: Phrase = "Previous page"
    next_page: Phrase = "Next page"


def filled(phrase: str, **values: object) -> str:
    """A phrase with values in the place of their names; braces that name none stay."""
    for name, value in values.items():
        phrase = phrase.replace("{" + name + "}", str(value))
    return phrase
