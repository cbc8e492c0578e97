"""Elements as HTML (HTML Standard §13.1)."""

from __future__ import annotations

import html
from functools import lru_cache

from skypane.markup.elements import Addresses
from skypane.markup.printed import MOST_COLUMNS, Printer
from skypane.model import Rendition


class Html(Printer):
    def text(self, text: str) -> str:
        """A line feed stays one, as `white-space: pre-line` shows it."""
        return html.escape(text, quote=False).replace("\n", "&#10;")

    def attribute(self, name: str, value: str | int) -> str:
        if value is True:
            return name
        return f'{name}="{html.escape(str(value), quote=True)}"'


@lru_cache(maxsize=16)
def in_folder(folder: str) -> Addresses:
    """Where files of a delivery are that stand in a folder beside the page."""

    def address(of: Rendition) -> str:
        return f"{folder}{of.name}"

    return address


@lru_cache(maxsize=16)
def html_of(folder: str = "images/", columns: int | None = MOST_COLUMNS) -> Html:
    """Prints HTML whose files stand in a folder beside the page."""
    return Html(in_folder(folder), columns)
