"""How a tree of elements becomes lines of a language: what all printers have in common."""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Mapping, Sequence

from skypane.markup.elements import VOID, Address, Addresses, Element, File, Listed
from skypane.markup.lines import Line
from skypane.model import Rendition
from skypane.values import once

#: A tag that would be longer is printed on several lines, if it has a list to break.
MOST_COLUMNS = 100


class Printer(ABC):
    """Prints elements, a line for each tag. `addresses` tells where renditions are to be had;
    `columns`: a longer tag is broken, None: none is; `indent` stands before what an element
    holds."""

    def __init__(
        self, addresses: Addresses, columns: int | None = MOST_COLUMNS, indent: str = "  "
    ) -> None:
        self.addresses, self.columns, self.indent = addresses, columns, indent

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

    def tag(self, of: Element) -> list[str]:
        """The tag that begins an element, in as many lines as it takes, without its end."""
        each, lists = [], {}
        for i, (name, value) in enumerate(of.attributes):
            if isinstance(value, Listed):
                lists[i] = [f"{self.address(a)} {d}".rstrip() for a, d in value.candidates]
                each.append(self.attribute(name, ", ".join(lists[i])))
            elif isinstance(value, File):
                each.append(self.attribute(name, self.address(value.address)))
            elif value is not None:
                each.append(self.attribute(name, value))
        whole = " ".join([f"<{of.tag}", *each])
        if self.columns is None or len(whole) < self.columns:
            return [whole]
        # what else is a list in HTML (§2.5.1.3 “sizes attributes”)
        for i, (name, value) in enumerate(of.attributes):
            if name == "sizes":
                lists[i] = parted(str(value))
        if all(len(entries) == 1 for entries in lists.values()):
            return [whole]
        return self._broken(of, each, lists, self.columns)

    def _broken(
        self, of: Element, each: Sequence[str], lists: Mapping[int, Sequence[str]], columns: int
    ) -> list[str]:
        """A tag between its attributes, and long lists between their entries."""
        out, line = [], f"<{of.tag}"
        for i, text in enumerate(each):
            if len(f"{line} {text}") < columns:
                line = f"{line} {text}"
                continue
            out.append(line)
            line = f"    {text}"
            if len(line) >= columns and len(lists.get(i, ())) > 1:
                broken = self.attribute(of.attributes[i][0], ",\n      ".join(lists[i]))
                out += f"    {broken}".split("\n")
                line = "   "  # what follows has a line of its own
        return [*out, line] if line.strip() else out


_STAYING = frozenset(("picture", "figure"))


def _lines(of: Element, printer: Printer) -> Sequence[Line]:
    # these stay from one time to the next, what is around them is made anew
    return _kept(of, printer) if of.tag in _STAYING else _printed(of, printer)


@once
def _kept(of: Element, printer: Printer) -> Sequence[Line]:
    return _printed(of, printer)


def _printed(of: Element, printer: Printer) -> Sequence[Line]:
    out = [Line(text, of.spans) for text in printer.tag(of)]
    last = out.pop().text
    if of.tag in VOID:
        out.append(Line(f"{last}{printer.end(of.tag)}", of.spans))
        return out
    if of.is_line:
        out.append(Line(f"{last}>{_inside(of, printer)}</{of.tag}>", of.spans))
        return out
    out.append(Line(f"{last}>", of.spans))
    indent = printer.indent
    for child in of.children:
        if isinstance(child, str):
            out.append(Line(f"{indent}{printer.text(child)}", of.spans))
        elif indent:
            out += [Line(f"{indent}{text}", spans) for text, spans in _lines(child, printer)]
        else:
            out += _lines(child, printer)
    out.append(Line(f"</{of.tag}>", of.spans))
    return out


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
