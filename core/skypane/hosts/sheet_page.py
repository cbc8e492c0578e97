"""A sheet to type from as a page that can be printed (HTML Standard; CSS Paged Media 3)."""

from __future__ import annotations

import html
from collections.abc import Iterator, Sequence

from skypane.hosts.lacks import Lack
from skypane.hosts.sheet import Sheet, SheetRow, position_text
from skypane.values import Answer

_STYLE = """
      @page { size: A4 landscape; margin: 12mm; }
      body { margin: 24px; color: #1a2624; font: 14px/1.45 sans-serif; }
      h1 { margin: 0 0 4px; font-size: 22px; }
      h2 { margin: 24px 0 6px; font-size: 16px; }
      table { width: 100%; border-collapse: collapse; }
      caption { padding: 16px 0 6px; font-weight: 700; text-align: start; }
      th, td { padding: 5px 12px 5px 0; border-top: 1px solid #b9c1be; text-align: start;
        vertical-align: top; overflow-wrap: anywhere; }
      thead th { border-top: 0; }
      tbody th { width: 12em; font-weight: 400; color: #4d5756; }
      li { margin: 3px 0; }
      tr, li { break-inside: avoid; }
"""


class SheetLine(Answer):
    """One thing that is typed: what it is called, and a value for every view."""

    label: str
    cells: tuple[str, ...]


class Table(Answer):
    """A picture in all views of a host; "" is the only one of its placement."""

    picture: str
    views: tuple[str, ...]
    lines: tuple[SheetLine, ...]


def tables_of(sheet: Sheet) -> tuple[Table, ...]:
    """A sheet as tables, one for every picture."""
    out = []
    for name in dict.fromkeys(row.picture for row in sheet.rows):
        rows = [row for row in sheet.rows if row.picture == name]
        views = tuple(f"{r.view}, {r.first} to {r.last} px" for r in rows)
        out.append(Table(picture=name, views=views, lines=tuple(_lines(rows))))
    return tuple(out)


def sheet_html(title: str, sheet: Sheet, lang: str = "en") -> str:
    """A table for every picture, a column for every view, and what the host cannot do."""
    tables = "".join(map(_table, tables_of(sheet)))
    return f"""<!DOCTYPE html>
<html lang="{html.escape(lang, quote=True)}">
  <head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>{html.escape(title)}</title>
    <style>{_STYLE}    </style>
  </head>
  <body>
    <h1>{html.escape(title)}</h1>
{tables}{_lacks(sheet.lacks)}  </body>
</html>
"""


def widths_text(runs: Sequence[tuple[int, int]]) -> str:
    """Runs of widths in words: at 320 to 599 and 1024 px."""
    each = [str(a) if a == b else f"{a} to {b}" for a, b in runs]
    said = each[0] if len(each) == 1 else f"{', '.join(each[:-1])} and {each[-1]}"
    return f"at {said} px"


def _table(of: Table) -> str:
    head = "".join(f'<th scope="col">{html.escape(view)}</th>' for view in of.views)
    lines = [f"    <table>\n      <thead><tr><td></td>{head}</tr></thead>\n      <tbody>\n"]
    if of.picture:
        lines.insert(0, f"    <h2>{html.escape(of.picture)}</h2>\n")
    for label, cells in ((line.label, line.cells) for line in of.lines):
        told = "".join(f"<td>{html.escape(c)}</td>" for c in cells)
        lines.append(f'        <tr><th scope="row">{label}</th>{told}</tr>\n')
    return "".join([*lines, "      </tbody>\n    </table>\n"])


def _lines(rows: Sequence[SheetRow]) -> Iterator[SheetLine]:
    """What is typed: a line for each field that any view has."""

    def px(pair: tuple[int, int] | None, by: str) -> str:
        if pair is None:
            return ""
        return (
            f"{pair[0]} px" if pair[0] == pair[1] and by != "×" else f"{pair[0]} {by} {pair[1]} px"
        )

    each = {
        "Shows": [{"picture": "on", "colour": "only its colour"}.get(r.shows, "off") for r in rows],
        "Order on the page": [str(r.order or "") for r in rows],
        "File": [r.file for r in rows],
        "Its px": [px(r.file_px, "×") for r in rows],
        "Address": [r.address for r in rows],
        "Alt text": [r.alt for r in rows],
        "Fit": [r.fit for r in rows],
        "Position": [position_text(r.position) if r.position else "" for r in rows],
        "Width": [r.width for r in rows],
        "Width in px": [px(r.frame_w, "to") for r in rows],
        "Height": [r.height for r in rows],
        "Height in px": [px(r.frame_h, "to") for r in rows],
        "Colour behind": [r.behind for r in rows],
        "Overlay": [
            f"{r.overlay}, {r.strength} %" if r.strength is not None else r.overlay for r in rows
        ],
    }
    for label, cells in each.items():
        if any(cells):
            yield SheetLine(label=label, cells=tuple(cells))


def _lacks(lacks: Sequence[Lack]) -> str:
    if not lacks:
        return ""
    each = "".join(
        f"      <li>{html.escape(lack.sentence)} <small>{widths_text(lack.runs)}</small></li>\n"
        for lack in lacks
    )
    return f"    <h2>What the host cannot do</h2>\n    <ul>\n{each}    </ul>\n"
