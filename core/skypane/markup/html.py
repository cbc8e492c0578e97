"""Elements as HTML (HTML Standard §13.1)."""

from __future__ import annotations

import html
import re
from functools import lru_cache

from skypane.markup.elements import Addresses
from skypane.markup.printed import Printer
from skypane.model import Rendition

#: What means something in an attribute; most have none of it.
_MEANS = re.compile("[&<>\"']")


class Html(Printer):
    def text(self, text: str) -> str:
        """A line feed stays one, as `white-space: pre-line` shows it."""
        return html.escape(text, quote=False).replace("\n", "&#10;")

    def attribute(self, name: str, value: str | int) -> str:
        if value is True:
            return name
        said = str(value)
        return f'{name}="{html.escape(said, quote=True) if _MEANS.search(said) else said}"'


@lru_cache(maxsize=16)
def in_folder(folder: str) -> Addresses:
    """Where files of a delivery are that stand in a folder beside the page."""

    def address(of: Rendition) -> str:
        return f"{folder}{of.name}"

    return address


@lru_cache(maxsize=16)
def html_at(addresses: Addresses) -> Html:
    """Prints HTML whose files are where `addresses` tells: the same printer for the same ones,
    since what it has printed is kept with it."""
    return Html(addresses)


def html_of(folder: str = "images/") -> Html:
    """Prints HTML whose files stand in a folder beside the page."""
    return html_at(in_folder(folder))


#: Prints HTML that nobody reads: of a gallery of hundreds the room before each line is a tenth.
UNREAD = Html(in_folder(""), columns=None, indent="")
