"""`grid` and `logo`: many pictures in one spot, and the cuts of one logo."""

from __future__ import annotations

import sys
from typing import Annotated, Any

import numpy as np
import typer
from pydantic import Field

from skypane.cli.batch import Batch, Question, run
from skypane.errors import InvalidPlan
from skypane.galleries.columns import (
    BoxModel,
    Cells,
    equal_cells,
    in_a_row,
    stated_cells,
)
from skypane.galleries.justified import broken_into_rows, row_height
from skypane.galleries.logo import (
    LEAST_LETTERING_PX,
    Cut,
    least_width,
    never_shown,
    readable_from,
    shown_cut,
)
from skypane.galleries.ratio import Item, common_ratio
from skypane.model import Container
from skypane.numerals import number
from skypane.widths.frames import Floats, holder_widths

commands = typer.Typer()

Viewport = Annotated[float, Field(ge=1, le=100_000)]
Side = Annotated[float, Field(gt=0, le=1e6)]


class GridItem(Question):
    """A picture's px, and the hull of its keep areas as shares of both sides."""

    w: Side
    h: Side
    keep: tuple[
        Annotated[float, Field(ge=0, le=1)],
        Annotated[float, Field(ge=0, le=1)],
    ] = (0, 0)


class GridQuestion(Question):
    """Columns of a holder, which is the page, or the `container` with `of`.

    Without `cell_percent` the cells share what the gutters leave; with it each is so much of the
    holder, with padding by its box model. Paddings are on each side. `target_px` is the height that
    justified rows go for.
    """

    columns: int = Field(ge=1, le=100)
    gutter_px: float = Field(0, ge=0, le=2000)
    padding_px: float = Field(0, ge=0, le=2000)
    padding_percent: float = Field(0, ge=0, le=100)
    box: BoxModel = "border-box"
    cell_percent: float | None = Field(None, gt=0, le=1000)
    container: Container | None = None
    items: Annotated[list[GridItem], Field(max_length=2000)] = []
    target_px: float | None = Field(None, gt=0, le=20_000)
    at: Annotated[list[Viewport], Field(max_length=10_000)] = []

    @property
    def holder(self) -> Floats:
        page = np.array(self.at, dtype=np.float64)
        return page if self.container is None else holder_widths("container", page, self.container)


def answer_grid(question: GridQuestion) -> dict[str, Any]:
    q, holder = question, question.holder
    cells = _cells(q, holder)
    fit = in_a_row(holder, cells.cell, q.gutter_px)
    equal = q.cell_percent is None
    widths = [
        {
            "holder_px": round(float(h), 4),
            "cell_px": round(float(cell), 4),
            "frame_px": round(float(frame), 4),
            "row_px": round(float(row), 4),
            "wraps": not equal and int(n) < q.columns,
            "in_a_row": q.columns if equal else int(n),
        }
        for h, cell, frame, row, n in zip(
            holder, cells.cell, cells.frame, cells.row, fit, strict=True
        )
    ]
    found = common_ratio([Item(i.w / i.h, *i.keep) for i in q.items])
    return {
        "widths": widths,
        "sum_percent": None if equal else _sum_percent(q),
        "rows": _rows_at(q, holder),
        "ratio": found
        and {
            "ratio": round(found.ratio, 6),
            "loss": round(found.loss, 6),
            "cuts": list(found.cuts),
        },
    }


def _cells(q: GridQuestion, holder: Floats) -> Cells:
    if q.cell_percent is None:
        if q.padding_percent:
            raise InvalidPlan(
                "Cells that share the holder take their padding in px: in a grid a percentage"
                " refers to the cell itself. Give padding_px, or cell_percent.",
                field="padding_percent",
            )
        found = equal_cells(holder, q.columns, q.gutter_px, q.padding_px)
        narrow = np.flatnonzero(found.frame <= 0)
        if narrow.size:
            at = int(narrow[0])
            taken = (q.columns - 1) * q.gutter_px + 2 * q.columns * q.padding_px
            raise InvalidPlan(
                f"At {number(q.at[at])} px gutters and padding take {number(round(taken, 2))} of"
                f" {number(round(float(holder[at]), 2))} px: no picture is left. Take fewer columns"
                " there.",
                field="columns",
            )
        return found
    return stated_cells(
        holder,
        q.columns,
        q.cell_percent,
        q.gutter_px,
        q.padding_px,
        q.padding_percent,
        q.box,
    )


def _sum_percent(q: GridQuestion) -> float:
    """What the shares of a row come to, without px."""
    padding = 2 * q.padding_percent if q.box == "content-box" else 0.0
    return round(q.columns * ((q.cell_percent or 0) + padding), 6)


#: How much can be broken into rows in about a second: items over all widths, of which long lists
#: count for more, since every row that ends at an item is tried.
MOST_IN_ROWS, LONG = 40_000, 1250


def _rows_at(q: GridQuestion, holder: Floats) -> list[list[dict[str, Any]]] | None:
    if q.target_px is None:
        return None
    most = int(MOST_IN_ROWS / max(1.0, len(q.items) * (1 + len(q.items) / LONG)))
    if len(holder) > most:
        raise InvalidPlan(
            f"{len(q.items)} items at {len(holder)} widths are too many to break into rows at once:"
            f" ask for at most {most} widths, or leave out target_px.",
            field="at",
        )
    return [_rows(q, float(h), q.target_px) for h in holder]


def _rows(q: GridQuestion, holder: float, target: float) -> list[dict[str, Any]]:
    ratios = np.array([i.w / i.h for i in q.items])
    if not ratios.size:
        return []
    out = []
    for r in broken_into_rows(ratios, float(holder), q.gutter_px, target):
        full = float(row_height(np.asarray(holder), ratios[r.first : r.last], q.gutter_px))
        height = full if r.filled else target
        out.append(
            {
                "items": list(range(r.first, r.last)),
                "height_px": round(height, 4),
                "filled": r.filled,
            }
        )
    return out


class LogoCut(Question):
    """One cut; `lettering` is the height of its lettering in the same unit as `h`, None where it
    has none."""

    name: Annotated[str, Field(max_length=200)] = ""
    w: Side
    h: Side
    lettering: Annotated[float, Field(gt=0, le=1e6)] | None = None


class LogoQuestion(Question):
    """The cuts of a logo, the fullest first; `box` is the width and height of the one box that they
    all have, in CSS px, and says which of them shows in it. `least_px` is what lettering has to be
    high at least."""

    cuts: Annotated[list[LogoCut], Field(min_length=1, max_length=20)]
    least_px: float = Field(LEAST_LETTERING_PX, gt=0, le=1000)
    boxes: Annotated[list[tuple[Side, Side]], Field(max_length=10_000)] = []


def answer_logo(question: LogoQuestion) -> dict[str, Any]:
    q = question
    for i, c in enumerate(q.cuts):
        if c.lettering is not None and c.lettering > c.h:
            raise InvalidPlan(
                f"The lettering of cut {i + 1} is {number(c.lettering)} high and the cut"
                f" {number(c.h)}: it cannot be higher than its cut.",
                field=f"cuts.{i}.lettering",
            )
    cuts = [Cut(c.w / c.h, c.lettering / c.h if c.lettering else None) for c in q.cuts]
    shown = []
    for w, h in q.boxes:
        drawn = [min(w, h * c.ratio) for c in cuts]
        at = shown_cut(cuts, drawn, q.least_px)
        shown.append({"cut": at, "width_px": round(drawn[at], 4)})
    return {
        "least_widths": [round(least_width(c, q.least_px), 4) or None for c in cuts],
        "from": [{"cut": i, "width_px": round(w, 4)} for i, w in readable_from(cuts, q.least_px)],
        "never": list(never_shown(cuts)),
        "boxes": shown,
    }


@commands.command()
def grid(batch: Batch = False) -> None:
    """Cells of a grid at any width, whether they wrap, justified rows, and the ratio that loses
    least.

    In: {"columns", "gutter_px", "padding_px", "padding_percent", "box", "cell_percent",
    "container", "items": [{"w", "h", "keep": [w, h]}], "target_px", "at": [px]}; out: {"widths":
    [{"holder_px", "cell_px", "frame_px", "row_px", "wraps", "in_a_row"}], "sum_percent", "rows",
    "ratio": {"ratio", "loss", "cuts"}}.
    """
    run(GridQuestion, answer_grid, batch, sys.stdin.buffer)


@commands.command()
def logo(batch: Batch = False) -> None:
    """The width down to which each cut of a logo can be read, and which cut shows from which width.

    In: {"cuts": [{"name", "w", "h", "lettering"}], "least_px", "boxes": [[w, h]]}; out:
    {"least_widths", "from": [{"cut", "width_px"}], "never", "boxes": [{"cut", "width_px"}]}.
    """
    run(LogoQuestion, answer_logo, batch, sys.stdin.buffer)
