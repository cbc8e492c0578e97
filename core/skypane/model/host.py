"""What a host takes: a system that shows pages, and does not take any markup."""

from __future__ import annotations

from itertools import pairwise
from typing import Annotated, Literal

from pydantic import Field, field_validator

from skypane.errors import written
from skypane.values import GREATEST_VIEWPORT, LEAST_VIEWPORT, Noun

#: *markup*: HTML of one's own. *rules*: style rules for an element that is there. *views*: another
#: file and other values for each of its views. *one*: one file, with a place in it that stays.
HostTakes = Literal["markup", "rules", "views", "one"]
MOST_VIEWS = 8


class View(Noun):
    """One of the widths of screens that a host tells apart: up to `to_px`, None: all others."""

    name: Annotated[str, written(r"\S", "It must not be blank.", max_length=40)]
    to_px: Annotated[int, Field(ge=LEAST_VIEWPORT, le=GREATEST_VIEWPORT)] | None = None


#: What hosts tell apart most often (common practice).
USUAL_VIEWS = (
    View(name="Phone", to_px=767),
    View(name="Tablet", to_px=1023),
    View(name="Desktop"),
)


class Host(Noun):
    """What the host of a site takes; its `views`, from the narrowest."""

    takes: HostTakes = "markup"
    views: Annotated[tuple[View, ...], Field(min_length=1, max_length=MOST_VIEWS)] = USUAL_VIEWS

    @field_validator("views")
    @classmethod
    def _in_order(cls, views: tuple[View, ...]) -> tuple[View, ...]:
        """They grow, and the last one has no end."""
        *others, last = views
        if last.to_px is not None or any(v.to_px is None for v in others):
            raise ValueError(
                "The last view has all screens that are wider than the others: it alone has no"
                " greatest width. Leave that empty."
            )
        for a, b in pairwise([v.to_px or 0 for v in others]):
            if b <= a:
                raise ValueError(
                    f"Views must grow: {b} px follows {a} px. Put them in order, from the"
                    " narrowest."
                )
        return views
