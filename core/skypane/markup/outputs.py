"""A placement as each kind of output has it: the texts of its files.

HTML, JSX and Django templates are printed from one tree of elements; JSON holds that tree itself.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from typing import NamedTuple

from skypane.files.renditions import Files
from skypane.markup.addresses import (
    FOLDER,
    addresses_of,
    as_negotiated,
    files_asked_for,
    prefix_of,
)
from skypane.markup.css import css_lines
from skypane.markup.django import DjangoTemplate
from skypane.markup.elements import Address, Addresses, Element, File, Listed, Value
from skypane.markup.fonts import font_lines
from skypane.markup.html import Html, html_at, in_folder
from skypane.markup.jsx import Jsx
from skypane.markup.lines import Line
from skypane.markup.picture import placement_elements
from skypane.markup.preload import preload_links
from skypane.markup.scripts import scripts_of
from skypane.markup.substitute import all_files
from skypane.model import Output, Rendition
from skypane.services.addresses import Sign
from skypane.shown.nouns import Plan


class WrittenFile(NamedTuple):
    """A text that is handed over, by its name in a delivery."""

    name: str
    lines: tuple[Line, ...]


def component_name(called: str) -> str:
    """What a component is called: keeper-s-cottage is KeeperSCottage (common practice: components
    of React begin with a capital letter)."""
    return "".join(f"{word[:1].upper()}{word[1:]}" for word in called.split("-"))


class PlacementCode(NamedTuple):
    """A placement as code has it: its elements, what goes into the head of its page, its style
    sheet, and where files are to be had."""

    plan: Plan
    files: Files
    addresses: Addresses
    elements: Sequence[Element]
    head: Sequence[Element]
    sheet: tuple[Line, ...]

    @property
    def called(self) -> str:
        return self.plan.placement.called


def code_of(plan: Plan, files: Files, sign: Sign | None = None) -> PlacementCode:
    """What all kinds of output are written from. `sign` signs addresses of a service."""
    asked, addresses = files_asked_for(plan, files), addresses_of(plan, sign)
    elements = [as_negotiated(plan, e) for e in placement_elements(plan, asked)]
    head = [as_negotiated(plan, e) for e in preload_links(plan, asked)]
    sheet = sheet_lines(plan, asked, addresses)
    return PlacementCode(plan, asked, addresses, elements, head, sheet)


def written_as(
    plan: Plan, files: Files, output: Output, sign: Sign | None = None
) -> tuple[WrittenFile, ...]:
    """The files of a placement in one kind of output. Without any file there is nothing to show and
    nothing is written."""
    return written(code_of(plan, files, sign), output)


def written(code: PlacementCode, output: Output) -> tuple[WrittenFile, ...]:
    """Code that is there already in one kind of output; without elements nothing is written."""
    return _WRITERS[output](code) if code.elements else ()


def sheet_lines(
    plan: Plan,
    files: Files,
    addresses: Addresses = in_folder(FOLDER),  # made once
) -> tuple[Line, ...]:
    """The style sheet, as it stands beside the pictures' folder."""
    return (*font_lines([plan]), *css_lines(plan, files, addresses))


def _head(name: str, code: PlacementCode, printer: Html) -> tuple[WrittenFile, ...]:
    """What goes into the head of a page, where anything does."""
    return (WrittenFile(f"{name}-head.html", printer.lines(code.head)),) if code.head else ()


def _html(code: PlacementCode) -> tuple[WrittenFile, ...]:
    name, printer = f"snippets/{code.called}", html_at(code.addresses)
    return (
        WrittenFile(f"{name}.html", printer.lines(code.elements)),
        *_head(name, code, printer),
        WrittenFile(f"{name}.css", code.sheet),
    )


def _django(code: PlacementCode) -> tuple[WrittenFile, ...]:
    name, prefix = f"templates/{code.called}", prefix_of(code.plan)
    # what is an address already, or begins at the root of a host, is no name of a static file
    is_static = not (prefix.startswith("/") or ":" in prefix.split("/")[0])
    how = code.plan.site.hand_over
    is_static = is_static and how.service is None and not how.uploaded
    printer = (DjangoTemplate if is_static else DjangoElsewhere)(code.addresses)
    return (
        WrittenFile(f"{name}.html", printer.lines(code.elements)),
        *_head(name, code, printer),
        WrittenFile(f"{name}.css", code.sheet),
    )


class DjangoElsewhere(DjangoTemplate):
    """A fragment whose files are not among the static ones of its project."""

    def address(self, of: Address) -> str:
        return Html.address(self, of)

    def lines(self, elements: Sequence[Element]) -> tuple[Line, ...]:
        return Html.lines(self, elements)


class _Module(Jsx):
    """JSX whose classes are those of a CSS module, which names them anew."""

    def attribute(self, name: str, value: str | int) -> str:
        if name != "class":
            return super().attribute(name, value)
        each = [f"styles[{json.dumps(word)}]" for word in str(value).split()]
        said = each[0] if len(each) == 1 else "`" + " ".join(f"${{{e}}}" for e in each) + "`"
        return f"className={{{said}}}"


def _jsx(code: PlacementCode) -> tuple[WrittenFile, ...]:
    name = component_name(code.called)
    # links that ask early may stand in the body (HTML Standard §4.6.8, “body-ok”)
    inner = _Module(code.addresses).lines([*code.head, *code.elements])
    scripts = scripts_of([code.plan])
    asks = [Line(f"// Put {script} into the page once.") for script in scripts]
    head = [
        'import type { ReactElement } from "react";',
        f'import styles from "./{name}.module.css";',
        "",
    ]
    lines = (
        *(Line(text) for text in head),
        *asks,
        Line(f"export function {name}(): ReactElement {{"),
        Line("  return ("),
        *(line.indented().indented() for line in inner),
        Line("  );"),
        Line("}"),
    )
    return (
        WrittenFile(f"components/{name}.tsx", lines),
        WrittenFile(f"components/{name}.module.css", code.sheet),
    )


def _json(code: PlacementCode) -> tuple[WrittenFile, ...]:
    plan, addresses = code.plan, code.addresses
    told = {
        "name": plan.placement.name,
        "kind": plan.placement.kind,
        "spans": [s.span._asdict() for s in plan.spots],
        "head": [_as_data(e, addresses) for e in code.head],
        "elements": [_as_data(e, addresses) for e in code.elements],
        "files": [_file(r, addresses) for r in all_files(plan, code.files)],
        "css": [line.text for line in code.sheet],
        "scripts": list(scripts_of([plan])),
    }
    text = json.dumps(told, indent=2, ensure_ascii=False)
    lines = tuple(Line(line) for line in text.split("\n"))
    return (WrittenFile(f"data/{code.called}.json", lines),)


def _file(r: Rendition, addresses: Addresses) -> dict[str, object]:
    return {
        "address": addresses(r),
        "format": r.format,
        "width_px": r.width_px,
        "height_px": r.height_px,
        "offered_as": r.descriptor,
        "spans": list(r.spans),
    }


def _as_data(of: Element, addresses: Addresses) -> dict[str, object]:
    """An element as JSON: tag, attributes, children (elements and texts), and the spans that its
    tags serve (none: all)."""
    return {
        "tag": of.tag,
        "attributes": {name: _value(value, addresses) for name, value in of.attributes},
        "children": [c if isinstance(c, str) else _as_data(c, addresses) for c in of.children],
        **({"spans": list(of.spans)} if of.spans else {}),
    }


def _value(value: Value, addresses: Addresses) -> object:
    def address(of: Address) -> str:
        return addresses(of) if isinstance(of, Rendition) else of

    match value:
        case Listed(candidates):
            return [{"address": address(a), "descriptor": d} for a, d in candidates]
        case File(of):
            return address(of)
    return value


_WRITERS: dict[Output, Callable[[PlacementCode], tuple[WrittenFile, ...]]] = {
    "html": _html,
    "jsx": _jsx,
    "django": _django,
    "json": _json,
}
