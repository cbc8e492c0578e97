"""What is wrong with how a grid arranges its items."""

from __future__ import annotations

from collections.abc import Iterator

from skypane.findings.rule import Case, Found, rule
from skypane.kinds.grid.arranged import values_of, waiting_items


@rule(
    "more-of-none",
    "wasteful",
    "frame",
    "Show all of them, or fewer at first.",
    at="first",
    kind="grid",
)
def more_of_none(case: Case) -> Iterator[Found]:
    """A span shows some items first and the rest on request, but there are no others (common
    practice)."""
    if case.part.index:
        return
    for spot in case.plan.spots:
        v = values_of(spot)
        if v.first and not v.is_turned and not waiting_items(spot):
            n = len(case.plan.written)
            yield (spot.span.letter,), f"{v.first} items show at first, and there are only {n}."


@rule(
    "page-hole",
    "wasteful",
    "frame",
    "Put a multiple of the columns on a page.",
    at="page_of",
    kind="grid",
)
def page_hole(case: Case) -> Iterator[Found]:
    """A page that is turned holds a number of items that its columns do not divide: the last row of
    every page has empty places (common practice)."""
    if case.part.index:
        return
    for spot in case.plan.spots:
        v = values_of(spot)
        left = v.page_of % v.columns
        if v.arranged != "pages" or not left or len(spot.shown) <= v.page_of:
            continue
        rows, empty = v.page_of // v.columns + 1, v.columns - left
        fewer = f"{v.page_of - left} or " if v.page_of > left else ""
        yield (
            (spot.span.letter,),
            f"{v.columns} across and {v.page_of} on a page: {empty} of {rows * v.columns} places"
            f" of every page {'is' if empty == 1 else 'are'} empty. Take"
            f" {fewer}{v.page_of - left + v.columns} on a page.",
        )


@rule(
    "wide-in-one",
    "wasteful",
    "words",
    "Let it take one column, or arrange cells in columns.",
    kind="grid",
)
def wide_in_one(case: Case) -> Iterator[Found]:
    """An item is told to take two columns, and no span has two columns of cells."""
    item = case.part.part.item
    if item is None or not item.wide:
        return
    values = [values_of(s) for s in case.plan.spots]
    if all(v.arranged != "cells" or v.columns < 2 for v in values):
        yield (), f"Item {case.part.index + 1} takes two columns, and no span has as many."
