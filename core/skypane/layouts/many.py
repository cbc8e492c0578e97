"""What kinds of many pictures have in common: every part is an item, and what holds for the box
around all of them is said for all."""

from __future__ import annotations

from typing import ClassVar

from skypane.errors import InvalidPlan
from skypane.layouts.layout import Layout
from skypane.model import MOST_PARTS, Placement, RatioHeight, Site, Treatment, Treatments
from skypane.treatments import OF_FRAME, own_values
from skypane.widths.spans import spans_of
from skypane.words.caption import TEXT_WEIGHT, TITLE_WEIGHT


class Many(Layout):
    most_parts = MOST_PARTS
    has_items = True
    is_large = True
    #: What one of its pictures and all of them together are called.
    one = "item"
    all_: ClassVar[str] = "grid"
    #: Fields of a treatment that are of all items together.
    of_all: ClassVar[tuple[str, ...]] = ("width", "stands")

    def begin(self, site: Site, placement: Placement) -> Placement:
        """Pictures with no role of their own, all 3:2 unless all have been told otherwise."""
        common = {spans_of(site)[-1].letter: Treatment(height=RatioHeight(w=3, h=2))}
        parts = tuple(
            p.model_copy(update={"role": None, "treatments": _without_frame(p.treatments)})
            for p in placement.parts
        )
        held = {**common, **placement.common}
        return placement.model_copy(update={"common": held, "parts": parts, "lead": False})

    def check(self, placement: Placement) -> None:
        super().check(placement)
        for index, part in enumerate(placement.usual):
            if part.role is not None:
                raise InvalidPlan(
                    f"{self.one.capitalize()} {index + 1} is a {part.role}; those belong to"
                    " banners.",
                    field="parts",
                )
            for letter, own in part.treatments.items():
                if said_alone := [f for f in self.of_all if f in own_values(own)]:
                    raise InvalidPlan(
                        f"The {said_alone[0]} of a {self.all_} is said for all {self.one}s;"
                        f" {self.one} {index + 1} says its own in span {letter}. Reset it there.",
                        field=f"parts.{index}.treatments.{letter}.{said_alone[0]}",
                    )

    def texts(self, placement: Placement) -> tuple[tuple[str, int], ...]:
        items = [p.item for p in placement.parts if p.item]
        found = [(i.title, TITLE_WEIGHT) for i in items] + [(i.text, TEXT_WEIGHT) for i in items]
        return tuple((text, weight) for text, weight in found if text.strip())


def _without_frame(treatments: Treatments) -> Treatments:
    """Treatments that leave the frame to what holds for all items."""
    bare = {k: t.model_copy(update=dict.fromkeys(OF_FRAME)) for k, t in treatments.items()}
    return {k: t for k, t in bare.items() if own_values(t)}
