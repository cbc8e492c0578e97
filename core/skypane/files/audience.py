"""The audience of a site as a table: width, height, density, weight."""

from __future__ import annotations

from pydantic import ValidationError

from skypane.errors import sentence_of
from skypane.model import MOST_VIEWERS, Site, Viewers
from skypane.tables import BadTable, rows_of, written_table

COLUMNS = ("width", "height", "density", "weight")


def audience_of(data: bytes) -> tuple[Viewers, ...]:
    """The audience that a CSV says. Raises BadTable, with line and column."""
    found = tuple(
        Viewers(
            width=round(row.number("width", 1, 20_000)),
            height=round(row.number("height", 1, 20_000)),
            density=row.number("density", 0.25, 8),
            weight=row.number("weight", 0, 1e9),
        )
        for row in rows_of(data, COLUMNS, MOST_VIEWERS)
    )
    try:
        Site(audience=found)
    except ValidationError as error:
        raise BadTable(sentence_of(error), field="weight") from None
    return found


def audience_csv(audience: tuple[Viewers, ...]) -> str:
    """An audience as a CSV: width, height, density, weight."""
    rows = [(v.width, v.height, f"{v.density:g}", f"{v.weight:.10g}") for v in audience]
    return written_table(COLUMNS, rows)
