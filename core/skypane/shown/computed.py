"""What plans are made of, span by span, so that the next one can be made of what has stayed."""

from __future__ import annotations

from typing import NamedTuple, TypeVar

from skypane.layouts import Spot
from skypane.model import Original, Placement
from skypane.shown.nouns import Plan, Setting, SpanPlan
from skypane.treatments import Resolved


class Computed(NamedTuple):
    """One span with all its parts, and the originals that they show."""

    spot: Spot
    originals: tuple[Original | None, ...]
    parts: tuple[SpanPlan, ...]

    @property
    def n_widths(self) -> int:
        """How many widths have been computed, of all parts together."""
        return len(self.parts) * len(self.spot.viewports.widths)


class Planned(NamedTuple):
    """A plan with what it was made of."""

    plan: Plan
    resolved: tuple[dict[str, Resolved], ...]
    computed: tuple[Computed, ...]

    def is_of(self, other: Setting) -> bool:
        """Whether all that is set beside the parts is the same."""
        setting = self.plan.setting
        # the name first: it tells most of them apart at once
        return (
            setting.bare.name == other.bare.name
            and (setting.scrollbar_px, setting.when) == (other.scrollbar_px, other.when)
            and setting.bare == other.bare
            and is_equal(setting.site, other.site)
        )

    def again(
        self, placement: Placement, originals: dict[int, Original]
    ) -> tuple[Placement, dict[int, Original]]:
        """Another placement and its originals, with what is equal to what is here as the very same
        objects: that it has stayed need not be found out span by span."""
        here = {o.id: o for of_span in self.computed for o in of_span.originals if o is not None}
        was = dict(enumerate(self.plan.placement.parts))
        parts = tuple(_known(was.get(i), part) for i, part in enumerate(placement.parts))
        told = placement.model_copy(update={"parts": parts})
        return told, {i: _known(here.get(i), o) for i, o in originals.items()}


_Value = TypeVar("_Value")


def _known(old: _Value | None, new: _Value) -> _Value:
    return old if old is not None and is_equal(old, new) else new


def is_equal(a: object, b: object) -> bool:
    """Equal, and found out at once where both are one object."""
    return a is b or a == b
