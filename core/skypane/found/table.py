"""Widths as a table: what, px, and a name if there is one."""

from __future__ import annotations

from typing import cast, get_args

from skypane.found.nouns import Finds, Found, What
from skypane.tables import BadTable, rows_of, written_table

COLUMNS = ("what", "px")
MOST_ROWS = 1000


def found_in_table(data: bytes) -> Found:
    """The widths that a CSV says. Raises BadTable, with line and column."""
    finds = Finds()
    rows = rows_of(data, COLUMNS, MOST_ROWS)
    for row in rows:
        what = row.cells.get("what", "").strip().lower()
        if what not in get_args(What):
            raise BadTable(
                f"Line {row.line}, what: “{what[:40]}” is none of {', '.join(get_args(What))}.",
                field="what",
            )
        name = row.cells.get("name", "").strip() or f"line {row.line}"
        finds.add(cast(What, what), row.number("px", 0.01, 20_000), name)
    return finds.taken(f"{len(rows)} row{'' if len(rows) == 1 else 's'} of a table")


def widths_csv(found: Found) -> str:
    """What was found, as a table that can be brought again."""
    rows = [(w.what, f"{w.px:.10g}", w.where, w.count) for w in found.widths]
    return written_table((*COLUMNS, "name", "count"), rows)
