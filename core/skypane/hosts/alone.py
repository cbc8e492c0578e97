"""The picture of a placement without what lies on it and around it: what a host can be given."""

from __future__ import annotations

from typing import Any

from skypane.model import Placement, Way
from skypane.shown.nouns import Plan
from skypane.shown.plan import plan


def can_stand_alone(placed: Plan) -> bool:
    """Whether its first picture has a frame of its own, which nothing else lays out."""
    return placed.layout.decorates and bool(placed.written)


def places_alone(placed: Plan) -> dict[int, int]:
    """By the place of a part of the placement that of the same part once it stands alone: the first
    picture, and all that shows in its place under conditions."""
    first = placed.written[0]
    others = [p.index for p in placed.parts if p.part.of and p.part.of == first.part.key]
    return {index: place for place, index in enumerate((first.index, *others))}


def alone(placed: Plan, *, stem: str | None = None, way: Way | None = None) -> Plan:
    """The first picture of a placement as one of the kind *picture*, with all that shows in its
    place under conditions; called `stem`, else as the placement is."""
    placement = placed.placement
    parts = [placement.parts[i] for i in places_alone(placed)]
    told: dict[str, Any] = {
        "kind": "picture",
        "parts": (parts[0].model_copy(update={"way": way}), *parts[1:]),
        "layout": {},
        "layout_under": (),
        "words": None,
        "substitute": None,
        "stem": stem or placement.called,
    }
    return plan(placed.site, Placement(**{**dict(placement), **told}), placed.originals)
