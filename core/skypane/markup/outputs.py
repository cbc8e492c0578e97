"""A placement as each kind of output has it: the texts of its files.

HTML, JSX and Django templates are printed from one tree of elements; JSON holds that tree itself.
"""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from typing import NamedTuple

from skypane.files.renditions import Files
from skypane.markup.css import css_lines
from skypane.markup.django import DjangoTemplate
from skypane.markup.elements import Address, Addresses, Element, File, Listed, Value
from skypane.markup.fonts import font_lines
from skypane.markup.html import Html, in_folder
from skypane.markup.jsx import Jsx
from skypane.markup.lines import Line
from skypane.markup.picture import placement_elements
from skypane.markup.preload import preload_links
from skypane.markup.scripts import scripts_of
from skypane.model import Output, Rendition
from skypane.shown.nouns import Plan

#: Where files lie beside a page of a delivery.
FOLDER = "images/"


class WrittenFile(NamedTuple):
    """A text that is handed over, by its name in a delivery."""

    name: str
    lines: tuple[Line, ...]


def prefix_of(plan: Plan) -> str:
    """What stands before the names of files in code that goes into pages of others."""
    return plan.site.hand_over.prefix or FOLDER


def component_name(called: str) -> str:
    """What a component is called: keeper-s-cottage is KeeperSCottage (common practice: components
    of React begin with a capital letter)."""
    return "".join(f"{word[:1].upper()}{word[1:]}" for word in called.split("-"))


def written_as(plan: Plan, files: Files, output: Output) -> tuple[WrittenFile, ...]:
    """The files of a placement in one kind of output. Without any file there is nothing to show and
    nothing is written."""
    elements = placement_elements(plan, files)
    return _WRITERS[output](plan, files, elements) if elements else ()


def sheet_lines(plan: Plan, files: Files, folder: str = FOLDER) -> tuple[Line, ...]:
    """The style sheet, as it stands beside the pictures' folder."""
    return (*font_lines([plan]), *css_lines(plan, files, folder))


def _head(name: str, plan: Plan, files: Files, printer: Html) -> tuple[WrittenFile, ...]:
    """What goes into the head of a page, where anything does."""
    links = preload_links(plan, files)
    return (WrittenFile(f"{name}-head.html", printer.lines(links)),) if links else ()


def _html(plan: Plan, files: Files, elements: Sequence[Element]) -> tuple[WrittenFile, ...]:
    called, printer = plan.placement.called, Html(in_folder(prefix_of(plan)))
    return (
        WrittenFile(f"snippets/{called}.html", printer.lines(elements)),
        *_head(f"snippets/{called}", plan, files, printer),
        WrittenFile(f"snippets/{called}.css", sheet_lines(plan, files, prefix_of(plan))),
    )


def _django(plan: Plan, files: Files, elements: Sequence[Element]) -> tuple[WrittenFile, ...]:
    called = plan.placement.called
    prefix = prefix_of(plan)
    # what is an address already, or begins at the root of a host, is no name of a static file
    is_static = not (prefix.startswith("/") or ":" in prefix.split("/")[0])
    printer = (DjangoTemplate if is_static else DjangoElsewhere)(in_folder(prefix))
    return (
        WrittenFile(f"templates/{called}.html", printer.lines(elements)),
        *_head(f"templates/{called}", plan, files, printer),
        WrittenFile(f"templates/{called}.css", sheet_lines(plan, files, prefix_of(plan))),
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


def _jsx(plan: Plan, files: Files, elements: Sequence[Element]) -> tuple[WrittenFile, ...]:
    name = component_name(plan.placement.called)
    inner = _Module(in_folder(prefix_of(plan))).lines(elements)
    scripts = scripts_of([plan])
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
        WrittenFile(f"components/{name}.module.css", sheet_lines(plan, files, prefix_of(plan))),
    )


def _json(plan: Plan, files: Files, elements: Sequence[Element]) -> tuple[WrittenFile, ...]:
    addresses = in_folder(prefix_of(plan))
    told = {
        "name": plan.placement.name,
        "kind": plan.placement.kind,
        "spans": [s.span._asdict() for s in plan.spots],
        "head": [_as_data(e, addresses) for e in preload_links(plan, files)],
        "elements": [_as_data(e, addresses) for e in elements],
        "files": [_file(r, addresses) for _, mine in files for r in mine],
        "css": [line.text for line in sheet_lines(plan, files, prefix_of(plan))],
        "scripts": list(scripts_of([plan])),
    }
    text = json.dumps(told, indent=2, ensure_ascii=False)
    lines = tuple(Line(line) for line in text.split("\n"))
    return (WrittenFile(f"data/{plan.placement.called}.json", lines),)


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


_Writes = Callable[[Plan, Files, Sequence[Element]], tuple[WrittenFile, ...]]
_WRITERS: dict[Output, _Writes] = {"html": _html, "jsx": _jsx, "django": _django, "json": _json}
