"""Plans of earlier readings, for as long as there is room for them. A store computes nothing: with
an empty one every plan is the same, only later there."""

from __future__ import annotations

from collections.abc import Callable

from skypane.layouts import Spot
from skypane.model import Original
from skypane.remembered import Remembered
from skypane.shown.computed import Computed, Planned
from skypane.shown.nouns import Plan, Setting
from skypane.widths.spans import spans_of

#: What one part takes at one width with all that hangs on it, in bytes, among few parts and among
#: many, which share most of it; measured by what a process gave back when it let them go, after 260
#: readings of the demo.
_BYTES_A_WIDTH, _BYTES_A_WIDTH_OF_MANY = 2900, 90
#: So much is remembered of each.
MOST_BYTES, MOST_BYTES_OF_MANY = 75_000_000, 45_000_000

#: A kind, a span as its layout sees it, and the originals that show: all that a span of few parts
#: depends on.
Key = tuple[str, Spot, tuple[Original | None, ...]]


class Store:
    """The spans of few parts that were computed last; and of many parts the last plans, one for
    each setting: while a value of all is dragged, each step is one. Safe to share between
    threads."""

    def __init__(self) -> None:
        self.few: Remembered[Key, Computed] = Remembered(
            MOST_BYTES, lambda c: c.n_widths * _BYTES_A_WIDTH
        )
        self.many: Remembered[Setting, Planned] = Remembered(
            MOST_BYTES_OF_MANY,
            lambda p: sum(c.n_widths for c in p.computed) * _BYTES_A_WIDTH_OF_MANY,
        )

    def span(self, key: Key, compute: Callable[[], Computed]) -> Computed:
        """One span of few parts, computed where it has not been."""
        found = self.few.get(key)
        if found is None:
            found = compute()
            self.few.keep(key, found)
        return found

    def like(self, setting: Setting) -> Planned | None:
        """The last plan of an equal setting, else the last one of the same name and kind with as
        many spans."""
        found = self.many.latest_first()
        same = next((p for p in found if p.is_of(setting)), None)
        return same or next((p for p in found if _is_near(p.plan, setting)), None)

    def keep(self, planned: Planned) -> None:
        self.many.keep(planned.plan.setting, planned)


def _is_near(known: Plan, setting: Setting) -> bool:
    return (
        known.placement.name == setting.bare.name
        and known.layout.kind == setting.bare.kind
        and len(known.spots) == len(spans_of(setting.site))
    )


#: What this process remembers.
STORE = Store()
