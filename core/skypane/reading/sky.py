"""What a placement is seen as: in its viewports, under conditions."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple

from skypane.model import Conditions, Finding, Original, Placement, Site
from skypane.reading.nouns import Band, ItemsReading, Verdicts
from skypane.reading.verdicts import Known, verdicts
from skypane.shown.nouns import Plan
from skypane.shown.plan import plan
from skypane.shown.store import Store
from skypane.shown.under_conditions import placement_seen, site_seen
from skypane.treatments import handed_of_kind


class Sky(NamedTuple):
    """A placement as it is written; in its viewports; as it is seen under conditions there; and as
    panes show that."""

    written: Plan
    computed: Plan
    there: Plan
    pane: Plan
    conditions: Conditions

    def verdicts(
        self,
        bands: Mapping[int, Sequence[Band]],
        whole: Sequence[Band],
        items: ItemsReading | None,
        found: Sequence[Finding] = (),
    ) -> tuple[Verdicts, ...]:
        """Where pictures are not there nothing is said of them."""
        features = self.conditions.features
        if self.conditions.pictures != "here":
            return verdicts(self.there, Known({}, whole))
        return verdicts(self.computed, Known(bands, whole, items, found, features))


def sky_of(
    site: Site,
    placement: Placement,
    originals: Mapping[int, Original],
    scrollbar_px: float,
    conditions: Conditions,
    store: Store,
) -> Sky:
    """Raises InvalidPlan where the placement cannot be computed."""
    written = computed = there = pane = plan(site, placement, originals, store=store)
    turned = site_seen(site, conditions.turn)
    if scrollbar_px or turned is not site:
        computed = there = plan(turned, placement, originals, scrollbar_px, store)
    seen = placement_seen(site, placement, originals, conditions)
    if seen is not placement:
        there = pane = plan(site, seen, originals, store=store)
        if scrollbar_px or turned is not site:
            there = plan(turned, seen, originals, scrollbar_px, store)
        handed = handed_of_kind(site, placement, conditions.features)
        there = replace(there, handed_of_kind=handed)
    if conditions.pictures == "failed":
        # a pane asks for its pictures, and is told that they are not there
        asked = conditions.model_copy(update={"pictures": "here"})
        pane = plan(site, placement_seen(site, placement, originals, asked), originals, store=store)
    return Sky(written, computed, there, pane, conditions)
