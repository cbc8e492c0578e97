"""Elements as JSX (the language of React's elements: attributes are named as properties of the DOM,
text between braces is a string of JavaScript)."""

from __future__ import annotations

import html
import json
from collections.abc import Sequence

from skypane.markup.elements import Element
from skypane.markup.lines import Line
from skypane.markup.printed import Printer

#: Attributes that are named otherwise than in HTML; `data-` and `aria-` stay as they are.
NAMES = {
    "class": "className",
    "srcset": "srcSet",
    "imagesrcset": "imageSrcSet",
    "imagesizes": "imageSizes",
    "fetchpriority": "fetchPriority",
    "tabindex": "tabIndex",
    "for": "htmlFor",
}


def _property(name: str) -> str:
    """Attributes of drawings are named as properties: stroke-width is strokeWidth."""
    if "-" not in name or name.startswith(("data-", "aria-")):
        return name
    first, *rest = name.split("-")
    return first + "".join(word.capitalize() for word in rest)


class Jsx(Printer):
    def text(self, text: str) -> str:
        """A text as it is where nothing in it means something in JSX, else as a string in
        braces."""
        is_plain = text == text.strip() and not set(text) & set("{}<>&\n")
        return text if is_plain else "{" + json.dumps(text, ensure_ascii=False) + "}"

    def attribute(self, name: str, value: str | int) -> str:
        called = NAMES.get(name) or _property(name)
        if value is True:
            return f'{called}=""'
        if isinstance(value, int):
            return f"{called}={{{value}}}"
        return f'{called}="{html.escape(value, quote=True)}"'

    def end(self, tag: str) -> str:
        return " />"

    def lines(self, elements: Sequence[Element]) -> tuple[Line, ...]:
        """Several elements stand in a fragment: an expression is one element."""
        found = super().lines(elements)
        if len(elements) < 2:
            return found
        return (Line("<>"), *(line.indented() for line in found), Line("</>"))
