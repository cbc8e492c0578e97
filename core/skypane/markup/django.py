"""Elements as a fragment of a Django template: files are asked for by `static`, and what the
template language would read is written so that it does not."""

from __future__ import annotations

import re
from collections.abc import Sequence

from skypane.markup.elements import Address, Element
from skypane.markup.html import Html
from skypane.markup.lines import Line
from skypane.model import Rendition

#: What begins or ends a tag of the template language, and how it is written as text.
_READ = {
    "{%": "openblock",
    "%}": "closeblock",
    "{{": "openvariable",
    "}}": "closevariable",
    "{#": "opencomment",
    "#}": "closecomment",
}
_ANY = re.compile("|".join(map(re.escape, _READ)))


def _plain(text: str) -> str:
    return _ANY.sub(lambda m: f"{{% templatetag {_READ[m[0]]} %}}", text)


class DjangoTemplate(Html):
    def text(self, text: str) -> str:
        return _plain(super().text(text))

    def address(self, of: Address) -> str:
        """A file of the delivery as an expression, whose marks `attribute` leaves alone."""
        found = super().address(of)
        return f"\0{found}\1" if isinstance(of, Rendition) else found

    def attribute(self, name: str, value: str | int) -> str:
        said = _plain(super().attribute(name, value))
        return re.sub("\0([^\1]*)\1", r"{% static '\1' %}", said)

    def lines(self, elements: Sequence[Element]) -> tuple[Line, ...]:
        return (Line("{% load static %}"), *super().lines(elements))
