"""What is wrong with frames and with what is still to come into them."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from skypane.findings.rule import Case, Found, Matter, rule, widths_at
from skypane.model import ColumnsWidth, PercentColumnsWidth
from skypane.numerals import number
from skypane.widths.frames import free_widths
from skypane.widths.runs import stretches
from skypane.widths.sums import Row, row_of, sum_is_over

#: What a frame may be wider than its column and still be taken for as wide (CSS px).
OFF_BY_PX = 0.5


@rule(
    "no-original", "unfinished", "aim", "Drop an original on the map or choose one.", at="original"
)
def no_original(case: Case) -> Iterator[Found]:
    """A span shows a picture, but has none yet. Visitors would see an empty frame there."""
    empty = tuple(p.span.letter for p in case.part.waiting)
    if empty:
        everywhere = len(empty) == len(case.part.spans)
        yield empty, "No picture yet." if everywhere else f"No picture in span {', '.join(empty)}."


@rule(
    "wider-than-page",
    "wrong",
    "frame",
    "Use a share of the page there, or give the frame a greatest width.",
    at="width",
)
def wider_than_page(case: Case) -> Iterator[Found]:
    """The frame is wider than the page at some width, which makes the whole page scroll sideways
    (WCAG 2.2, 1.4.10 Reflow)."""
    for p in case.part.spans:
        over = p.viewport_w[(p.viewport_w + 0.5 < p.W).any(axis=0)]
        if over.size and p.effective.show != "nothing":
            wide = np.asarray((p.viewport_w + 0.5 < p.W).any(axis=0))
            runs = tuple(stretches(p.viewport_w, wide))
            most = float((p.W - p.viewport_w).max())
            yield Matter(
                "",
                p.span.letter,
                runs,
                most,
                "The frame is wider than the page {where} and scrolls it sideways, by up to"
                f" {number(round(most, 1))} px.",
            )


@rule(
    "wider-than-column",
    "wrong",
    "frame",
    "Let the column be wider there, with fewer of them, or give the frame no least width.",
    at="width",
)
def wider_than_column(case: Case) -> Iterator[Found]:
    """A frame that has a least width is wider than the column it stands in, so that it lies over
    what is beside it, or pushes it away (common practice)."""
    if case.part.index:
        return
    for p in case.part.spans:
        rule = p.effective.width
        if not isinstance(rule, ColumnsWidth | PercentColumnsWidth) or rule.least_px is None:
            continue
        if p.effective.show == "nothing":
            continue
        column = free_widths(rule, p.viewport_w, p.spot.container)
        over = p.layout.box_widths(p.spot) - column
        at = np.flatnonzero(over > OFF_BY_PX)
        if at.size:
            worst = int(over.argmax())
            wide, has = float(column[worst] + over[worst]), float(column[worst])
            much = f": {wide / has - 1:.0%} too wide".replace("%", " %") if has > 0 else ""
            yield Matter(
                "",
                p.span.letter,
                widths_at(p.viewport_w, at),
                float(over[worst]),
                "The frame is wider than its column {where}, "
                f"{number(round(wide, 1))} px in a column of {number(round(max(has, 0.0), 1))} px"
                f" at {int(p.viewport_w[worst])} px{much}.",
            )


def _rows(case: Case) -> Iterator[tuple[str, PercentColumnsWidth, Row, int]]:
    """Every span whose frame is a percentage column, with its row and its number of widths."""
    for p in case.part.spans:
        rule = p.effective.width
        if isinstance(rule, PercentColumnsWidth) and p.effective.show != "nothing":
            row = row_of(rule, p.viewport_w, p.spot.container)
            yield p.span.letter, rule, row, len(p.viewport_w)


@rule(
    "row-overflows",
    "wrong",
    "frame",
    "Leave the width empty, so that it is what the row leaves, or take less padding.",
    at="width",
)
def row_overflows(case: Case) -> Iterator[Found]:
    """Percentage columns that add up to more than the row holds: the last of them wraps into a row
    of its own (rules §2; common practice). A sum that is over by less than browsers can lay out
    is told too: it is a slip."""
    for letter, of, row, widths in _rows(case):
        if row.wraps.size:
            where = "every width" if row.wraps.size == widths else f"{row.wraps.size} widths"
            yield (letter,), f"{row.text}: column {of.columns} wraps at {where} of span {letter}."
        elif sum_is_over(row.percent):
            yield (letter,), f"{row.text}: more than a row holds, if only by a trace."


@rule(
    "one-more-in-row",
    "wasteful",
    "frame",
    "Leave the width empty, so that the columns fill the row, or say one column more.",
    at="width",
)
def one_more_in_row(case: Case) -> Iterator[Found]:
    """Percentage columns so narrow that another one fits into the row: where they flow (float,
    flex), the next row's first moves up beside them (rules §2; common practice)."""
    for letter, of, row, widths in _rows(case):
        if row.one_more.size == widths:
            yield (letter,), f"{row.text}: a row holds {of.columns + 1} of them."
