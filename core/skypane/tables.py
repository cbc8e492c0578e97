"""Tables that people bring as CSV (RFC 4180), however their spreadsheet wrote them: with commas,
semicolons or tabs, a decimal comma, and in UTF-8, UTF-16 or Windows-1252."""

from __future__ import annotations

import codecs
import csv
import io
from collections.abc import Iterable, Sequence
from typing import NamedTuple

from skypane.errors import SkyPaneError

MOST_BYTES = 1_000_000


class BadTable(SkyPaneError):
    """A table that cannot be read; the sentence names line and column."""


class Row(NamedTuple):
    """A line of a table by the names of its columns; `line` counts from 1."""

    line: int
    cells: dict[str, str]

    def number(self, column: str, least: float, most: float) -> float:
        """A number with a point or a comma. Raises BadTable."""
        text = self.cells.get(column, "").strip().replace(" ", "").replace("\xa0", "")
        try:
            value = float(text.replace(",", "."))
        except ValueError:
            said = f"“{text[:40]}” is no number" if text else "nothing is said"
            raise BadTable(f"Line {self.line}, {column}: {said}.", field=column) from None
        if not least <= value <= most:
            raise BadTable(
                f"Line {self.line}, {column}: {value:g} is not between {least:g} and {most:g}.",
                field=column,
            )
        return value


def decoded(data: bytes) -> str:
    """Text by its byte order mark, else as UTF-8, else as Windows-1252. Raises BadTable."""
    if len(data) > MOST_BYTES:
        raise BadTable(f"The table has {len(data) / 1e6:.1f} MB; at most 1 MB is read.")
    for bom, encoding in (
        (codecs.BOM_UTF8, "utf-8-sig"),
        (codecs.BOM_UTF16_LE, "utf-16"),
        (codecs.BOM_UTF16_BE, "utf-16"),
    ):
        if data.startswith(bom):
            return data.decode(encoding, "replace")
    try:
        return data.decode()
    except UnicodeDecodeError:
        return data.decode("cp1252", "replace")


def rows_of(data: bytes, columns: Sequence[str], most: int) -> list[Row]:
    """The rows of a table. A first line that names the columns may have them in any order, and
    others beside them; without one they stand in the order of `columns`. Raises BadTable."""
    text = decoded(data)
    lines = [line for line in text.splitlines() if line.strip()]
    if not lines:
        raise BadTable(f"The table is empty. It has the columns {', '.join(columns)}.")
    separator = max(";\t,", key=lines[0].count)
    found: list[Row] = []
    names: Sequence[str] | None = None
    reader = csv.reader(io.StringIO(text), delimiter=separator)
    try:
        for cells in reader:
            if not any(c.strip() for c in cells):
                continue
            if names is None:
                names = _names(cells, columns)
                if names is not None:
                    continue
                names = columns
            found.append(Row(reader.line_num, dict(zip(names, cells, strict=False))))
            if len(found) > most:
                raise BadTable(f"Line {reader.line_num}: at most {most} rows are read.")
    except csv.Error as error:
        raise BadTable(f"Line {reader.line_num}: {error}.") from None
    if not found:
        raise BadTable("The table names its columns, but has no row.")
    return found


def _names(cells: Sequence[str], columns: Sequence[str]) -> Sequence[str] | None:
    """The columns as the first line names them; None where it names none."""
    first = [c.strip().lower() for c in cells]
    if not any(c[:1].isalpha() for c in first):
        return None
    missing = [c for c in columns if c not in first]
    if missing:
        raise BadTable(
            f"Line 1: there is no column {missing[0]}. The table has the columns"
            f" {', '.join(columns)}.",
            field=missing[0],
        )
    return first


def written_table(columns: Sequence[str], rows: Iterable[Sequence[object]]) -> str:
    """A table with commas, in UTF-8, with a line that names the columns."""
    out = io.StringIO()
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(columns)
    writer.writerows(rows)
    return out.getvalue()
