"""Markup as a tree of elements, text and addresses. What prints it (`skypane.markup.html`, `jsx`,
`django`) escapes for its own language and says where files are to be had.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Literal, NamedTuple

from skypane.model import Rendition

#: Where a file is to be had: a rendition, whose address the printer's `Addresses` tells, or an
#: address as it is, as that of a preview.
Address = Rendition | str
#: Tells the address of a rendition: in a folder, below a URL, at a service.
Addresses = Callable[[Rendition], str]


class Candidate(NamedTuple):
    """One file of a `srcset`; `descriptor` is its width or density, "" for one that has none (HTML
    Standard §4.8.4.2)."""

    address: Address
    descriptor: str


class Listed(NamedTuple):
    """The candidates of a `srcset`."""

    candidates: tuple[Candidate, ...]


class File(NamedTuple):
    """One address as a value, as that of `src`."""

    address: Address


#: What an attribute may have; True: it is there without a value; None: it is not.
Value = str | int | File | Listed | Literal[True] | None
#: Elements without content or end tag (HTML Standard §13.1.2).
VOID = frozenset(("img", "link", "source"))


@dataclass(frozen=True, eq=False)
class Element:
    """An element with its attributes in their order, and what it holds: elements and texts. `spans`
    are the letters of the spans that its tags serve (none: all). `on_a_line`: printed in one line
    with all that it holds. Compared by identity: what is printed of it is kept with it."""

    tag: str
    attributes: tuple[tuple[str, Value], ...] = ()
    children: tuple[Element | str, ...] = ()
    spans: tuple[str, ...] = ()
    on_a_line: bool = False

    @property
    def is_line(self) -> bool:
        """Whether it is printed in one line, but for attributes that are too long for it."""
        return self.on_a_line or all(isinstance(c, str) for c in self.children)


def element(
    tag: str,
    attributes: Mapping[str, Value] | None = None,
    children: Sequence[Element | str] = (),
    *,
    spans: tuple[str, ...] = (),
    on_a_line: bool = False,
) -> Element:
    """An element; attributes that are None are left out."""
    said = tuple((k, v) for k, v in (attributes or {}).items() if v is not None)
    return Element(tag, said, tuple(children), spans, on_a_line)
