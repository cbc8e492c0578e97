"""How a tree of elements becomes lines of a language: what all printers have in common."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Sequence

from skypane.markup.elements import VOID, Address, Addresses, Element, File, Listed, Value
from skypane.markup.lines import Line
from skypane.model import Rendition
from skypane.values import once

#: A tag that would be longer is printed on several lines, if it has a list to break.
MOST_COLUMNS = 100
#: Attributes that hold lists, which are broken between their entries (HTML Standard §4.8.4.2).
LISTS = frozenset(("srcset", "sizes"))


class Printer(ABC):
    """Prints elements, a line for each tag and a level of two spaces for what it holds. `addresses`
    tells where renditions are to be had; `columns`: a longer tag is broken, None: none is."""

    def __init__(self, addresses: Addresses, columns: int | None = MOST_COLUMNS) -> None:
        self.addresses, self.columns = addresses, columns

    @abstractmethod
    def text(self, text: str) -> str:
        """Text content in this language; a line feed in it stays one."""

    @abstractmethod
    def attribute(self, name: str, value: str | int) -> str:
        """An attribute in this language. Of a text that was broken the line feeds stay."""

    def address(self, of: Address) -> str:
        """An address, before it is escaped."""
        return self.addresses(of) if isinstance(of, Rendition) else of

    def end(self, tag: str) -> str:
        """What ends the tag of an element without content."""
        return ">"

    def lines(self, elements: Sequence[Element]) -> tuple[Line, ...]:
        """All of some elements, one after the other."""
        return tuple(line for each in elements for line in _lines(each, self))

    def value(self, value: Value) -> str | int:
        """What an attribute says, in one line."""
        match value:
            case File(address):
                return self.address(address)
            case Listed():
                return ", ".join(self.entries(value))
            case None:
                return ""
        return value

    def entries(self, value: Value) -> list[str]:
        """The entries of a list; a text's are what its commas divide."""
        if isinstance(value, Listed):
            return [f"{self.address(a)} {d}".rstrip() for a, d in value.candidates]
        return parted(str(self.value(value)))

    def tag(self, of: Element) -> list[str]:
        """The tag that begins an element, in as many lines as it takes, without its end."""
        each = [self.attribute(k, self.value(v)) for k, v in of.attributes]
        whole = " ".join([f"<{of.tag}", *each])
        if self.columns is None or len(whole) < self.columns:
            return [whole]
        lists = {i: self.entries(v) for i, (k, v) in enumerate(of.attributes) if k in LISTS}
        if all(len(entries) == 1 for entries in lists.values()):
            return [whole]
        out, line = [], f"<{of.tag}"
        for i, text in enumerate(each):
            if len(f"{line} {text}") < self.columns:
                line = f"{line} {text}"
                continue
            out.append(line)
            line = f"    {text}"
            if len(line) >= self.columns and len(lists.get(i, ())) > 1:
                broken = self.attribute(of.attributes[i][0], ",\n      ".join(lists[i]))
                out += f"    {broken}".split("\n")
                line = "   "  # what follows has a line of its own
        return [*out, line] if line.strip() else out


@once
def _lines(of: Element, printer: Printer) -> tuple[Line, ...]:
    *opening, last = printer.tag(of)
    begun = [Line(text, of.spans) for text in opening]
    if of.tag in VOID:
        return (*begun, Line(f"{last}{printer.end(of.tag)}", of.spans))
    if of.is_line:
        return (*begun, Line(f"{last}>{_inside(of, printer)}</{of.tag}>", of.spans))
    out = [*begun, Line(f"{last}>", of.spans)]
    for child in of.children:
        if isinstance(child, str):
            out.append(Line(f"  {printer.text(child)}", of.spans))
        else:
            out += [line.indented() for line in _lines(child, printer)]
    return (*out, Line(f"</{of.tag}>", of.spans))


def _inside(of: Element, printer: Printer) -> str:
    return "".join(
        printer.text(child)
        if isinstance(child, str)
        else "".join(line.text for line in _lines(child, printer))
        for child in of.children
    )


def parted(value: str) -> list[str]:
    """The entries of a list that is divided by commas, those within brackets left alone."""
    out, depth, start = [], 0, 0
    for i, c in enumerate(value):
        depth += (c == "(") - (c == ")")
        if c == "," and not depth:
            out.append(value[start:i].strip())
            start = i + 1
    return [*out, value[start:].strip()]
