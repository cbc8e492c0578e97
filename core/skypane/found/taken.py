"""What was found, taken into a site."""

from __future__ import annotations

import math
from collections.abc import Iterable

from pydantic import ValidationError

from skypane.errors import InvalidPlan, sentence_of
from skypane.found.nouns import What
from skypane.identifiers import identifier, next_free
from skypane.model import ColumnsWidth, FrameValues, NamedFrame, Site
from skypane.values import Noun
from skypane.widths.spans import spans_of


class Chosen(Noun):
    """One of the widths that were found; of `columns` their number."""

    what: What
    px: float


def taken(site: Site, chosen: Iterable[Chosen]) -> Site:
    """The site with what was chosen; the rest of it stays as it is.

    Breakpoints and other lengths become its breakpoints, which are whole px: the last width of a
    span. Of containers, margins, gutters and columns the greatest counts. A number of columns
    becomes a named frame, one column wide, said for the widest span that the site has so far.
    Raises InvalidPlan where no site can have what was chosen.
    """
    by: dict[What, list[float]] = {}
    for one in chosen:
        by.setdefault(one.what, []).append(one.px)
    values = site.model_dump()
    posts = {math.floor(px) for px in (*by.get("breakpoint", ()), *by.get("length", ()))}
    if posts:
        values["breakpoints"] = sorted(posts)
    if "container" in by:
        values["container"]["max_width_px"] = max(by["container"])
    if "margin" in by:
        values["container"]["margin_px"] = max(by["margin"])
    if "gutter" in by and "columns" not in by:
        raise InvalidPlan("A gutter lies between columns: choose a number of columns too.")
    try:
        if "columns" in by:
            columns, gutter = int(max(by["columns"])), max(by.get("gutter", [0.0]))
            values["frames"] = [*site.frames, _column(site, columns, gutter)]
        return Site.model_validate(values)
    except ValidationError as error:
        raise InvalidPlan(sentence_of(error)) from None


def _column(site: Site, columns: int, gutter: float) -> NamedFrame:
    """One column as a named frame."""
    name = next_free(f"one of {columns} columns", [f.name for f in site.frames])
    width = ColumnsWidth(columns=columns, gutter_px=gutter)
    return NamedFrame(
        id=next_free(identifier(name, "frame"), [f.id for f in site.frames]),
        name=name,
        spans={spans_of(site)[-1].letter: FrameValues(width=width)},
    )
