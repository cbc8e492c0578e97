"""Words that lie on a picture, or beside it: what they say. Where and how they stand is said per
span."""

from __future__ import annotations

import re
from typing import Annotated

from pydantic import AfterValidator, Field

from skypane.values import Noun

MOST_HEADING, MOST_TEXT, MOST_LABEL, MOST_HREF = 300, 2000, 80, 2000
MOST_BUTTONS = 2

#: Schemes that a link may have (RFC 3986 §3.1); a reference without a scheme is one to this site.
SCHEMES = ("http", "https", "mailto", "tel")
#: What a browser takes out of a URL before it looks for the scheme (URL Standard, §4.4).
_TAKEN_OUT = re.compile(r"[\x00-\x20\u007f]")


def _link(href: str) -> str:
    plain = _TAKEN_OUT.sub("", href)
    scheme = re.match(r"([a-zA-Z][a-zA-Z0-9+.-]*):", plain)
    if scheme and scheme[1].lower() not in SCHEMES:
        raise ValueError(
            f"A link cannot lead to “{scheme[1]}:”. Give a page (/crossings), an address with"
            " https:, mailto: or tel:."
        )
    return href.strip()


def clean_text(text: str) -> str:
    """Without characters that no page shows; line ends are those of Unix."""
    lines = text.replace("\r\n", "\n").replace("\r", "\n")
    return "".join(c for c in lines if c in "\n\t" or (c >= " " and c != "\x7f"))


def _at_most(most: int, what: str) -> AfterValidator:
    def bounded(text: str) -> str:
        if len(text) > most:
            raise ValueError(
                f"{what} has {len(text)} characters. At most {most} can be laid on a picture: say"
                " the rest in the page's own text."
            )
        return clean_text(text)

    return AfterValidator(bounded)


Heading = Annotated[str, _at_most(MOST_HEADING, "The heading")]
Text = Annotated[str, _at_most(MOST_TEXT, "The text")]
Label = Annotated[str, _at_most(MOST_LABEL, "The button")]


#: The rank of a heading in its page (HTML Standard §4.3.11).
HeadingLevel = Annotated[int, Field(ge=1, le=6)]

Href = Annotated[str, Field(max_length=MOST_HREF), AfterValidator(_link)]


class Button(Noun):
    """A link that looks like a button."""

    label: Label
    href: Href = "#"


class Words(Noun):
    """Heading, text and buttons, written once for all spans. `level` is the heading's rank in the
    page; None: as the site has it. What is empty is not there."""

    heading: Heading = ""
    text: Text = ""
    buttons: Annotated[tuple[Button, ...], Field(max_length=MOST_BUTTONS)] = ()
    level: HeadingLevel | None = None

    @property
    def labels(self) -> tuple[str, ...]:
        return tuple(b.label for b in self.buttons)

    @property
    def empty(self) -> bool:
        return not (self.heading.strip() or self.text.strip() or any(map(str.strip, self.labels)))
