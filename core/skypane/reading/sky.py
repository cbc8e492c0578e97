"""What a placement is seen as: in its viewports, under conditions."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import NamedTuple

import numpy as np

from skypane.model import Conditions, Finding, Original, Placement, Site
from skypane.reading.nouns import Band, ItemsReading, Verdicts, WordsReading
from skypane.reading.verdicts import Known, verdicts
from skypane.reading.words import words_reading
from skypane.shown.nouns import Plan
from skypane.shown.plan import plan
from skypane.shown.seen import holds
from skypane.shown.store import Store
from skypane.shown.under import Pixels
from skypane.shown.under_conditions import placement_seen, site_seen
from skypane.treatments import handed_of_kind
from skypane.widths.curves import Curve, between
from skypane.widths.runs import equal_runs, merged, within


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
            missing = (self.computed, self._in_their_place)
            return verdicts(self.there, Known({}, whole, missing=missing))
        return verdicts(self.computed, Known(bands, whole, items, found, features))

    @property
    def _in_their_place(self) -> str:
        """What is seen where pictures are not there, in a word or two."""
        placement = self.written.placement
        if self.conditions.pictures == "coming":
            return "blurred" if placement.blurred else "only colour"
        return "alt text alone" if placement.substitute is None else "another picture"

    def words(self, pixels: Pixels, chosen: tuple[int, str] | None = None) -> WordsReading | None:
        """The words at typical viewports: at widths at which those stand upright as they are
        then, with the bands of that."""
        usual = words_reading(self.there, pixels, chosen)
        turned = self.there.under.get(("portrait",))
        site = self.there.site
        upright = holds(site, ("portrait",))
        if usual is None or turned is None or not upright.any():
            return usual
        other = words_reading(turned, pixels)
        bands = other.bands if other else ()
        return usual.model_copy(update={"bands": _spliced(site, usual.bands, bands, upright)})


def _spliced(
    site: Site, usual: Sequence[Band], turned: Sequence[Band], upright: np.ndarray
) -> tuple[Band, ...]:
    """Bands with those of upright screens where screens stand upright."""
    widths = [(site.narrowest + a, site.narrowest + b - 1) for a, b in equal_runs(upright)]
    up = [w for w in widths if upright[w[0] - site.narrowest]]
    down = [w for w in widths if w not in up]
    of = [{b.id: b for b in bands} for bands in (usual, turned)]
    out = []
    for id_ in dict.fromkeys((*of[0], *of[1])):
        both = zip(of, (down, up), strict=True)
        mine = [(bands[id_], where) for bands, where in both if id_ in bands]
        runs = [run for band, where in mine for run in within(band.runs, where)]
        points = [p for band, where in mine for p in between(band.curve, where)]
        needed = [p for band, where in mine if band.needed for p in between(band.needed, where)]
        changed = {
            "runs": merged(sorted(runs, key=lambda r: r.first)),
            "curve": Curve(points=tuple(sorted(points, key=lambda p: p[0]))),
            "needed": Curve(points=tuple(sorted(needed, key=lambda p: p[0]))) if needed else None,
        }
        out.append(mine[0][0].model_copy(update=changed))
    return tuple(out)


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
    turned = site_seen(site, conditions)
    if scrollbar_px or turned is not site:
        computed = there = plan(turned, placement, originals, scrollbar_px, store)
    seen = placement_seen(site, placement, originals, conditions)
    if seen is not placement:
        there = pane = plan(site, seen, originals, store=store)
        if scrollbar_px or turned is not site:
            there = plan(turned, seen, originals, scrollbar_px, store)
        handed = handed_of_kind(site, placement, conditions.features)
        there = replace(there, handed_of_kind=handed)
    if conditions.pictures == "failed" or (conditions.pictures != "here" and placement.blurred):
        # a pane asks for its pictures, and is told that they are not there (yet)
        asked = conditions.model_copy(update={"pictures": "here"})
        pane = plan(site, placement_seen(site, placement, originals, asked), originals, store=store)
    return Sky(written, computed, there, pane, conditions)
