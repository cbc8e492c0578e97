"""A page around its placements."""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, field_validator

from skypane.model.frame import Letter
from skypane.values import Noun

MOST_ON_PAGE = 5000


class PageValues(Noun):
    """What a page sets in one span; handed down from wider spans to narrower ones.

    `head_px` is how high the page's head is, in CSS px; with `head_over` the first placement slides
    under it, else it stands below. `order` names placements by their place in reading order, from
    0; those it does not name come after.
    """

    head_px: Annotated[float, Field(ge=0, le=2000)] | None = None
    head_over: bool | None = None
    order: Annotated[tuple[int, ...], Field(max_length=MOST_ON_PAGE)] | None = None

    @field_validator("order")
    @classmethod
    def _each_once(cls, order: tuple[int, ...] | None) -> tuple[int, ...] | None:
        if order is not None and len(set(order)) < len(order):
            raise ValueError("A placement stands twice in the order. Each stands there once.")
        return order


PageLayout = dict[Letter, PageValues]
