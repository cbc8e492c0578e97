"""A placement as it is seen under conditions (rules §14): as a placement of its own, in which what
stands in for others then has taken their places, on a site whose screens stand as they then do."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any, NamedTuple

import numpy as np

from skypane.geometry import WHOLE
from skypane.handing_down import to_set
from skypane.layouts import layout_of
from skypane.model import (
    AS_USUAL,
    Conditions,
    Feature,
    HeightRange,
    LayoutUnder,
    Original,
    Part,
    Placement,
    Site,
    Treatment,
    Turn,
    all_of,
)
from skypane.shown.variants import chosen_for
from skypane.treatments import (
    Resolved,
    handed_of_kind,
    on_its_own,
    resolve,
)
from skypane.widths.frames import viewport_heights

#: Screens are turned over in steps of this ratio of widths.
STEP = 1.1


def site_seen(site: Site, conditions: Conditions) -> Site:
    """The site with the colours that its pages then have, and with screens that all stand upright,
    or all lie. One that stands otherwise is as
    wide as it is, and has its ratio turned over: where 1280 × 800 are usual, 1280 × 2048 stand
    upright."""
    colours, turn = site.colours_under(conditions.features), conditions.turn
    if colours != site.colours:
        site = site.model_copy(update={"colours": colours})
    if turn == "typical":
        return site
    rows = [h.to_px for h in site.heights if site.narrowest <= h.to_px < site.widest]
    n = int(np.ceil(np.log(site.widest / site.narrowest) / np.log(STEP)))
    steps = np.round(np.geomspace(site.narrowest, site.widest, n + 1))[1:].astype(int)
    ends = sorted({*rows, *(int(to) for to in steps), site.widest})
    first, out = site.narrowest, []
    for to in ends:
        out.append(_turned(site, turn, first, to))
        first = to + 1
    return site.model_copy(update={"heights": tuple(out)})


def _turned(site: Site, turn: Turn, first: int, to: int) -> HeightRange:
    """The heights of screens of some widths, so that all of them stand that way."""
    upright = turn == "upright"
    width = to if upright else first
    found = [float(h[0]) for h in viewport_heights(site.heights, np.array([float(width)]))]
    if (found[1] >= width) is not upright:
        found = [width * width / h for h in reversed(found)]
    bound = max if upright else min
    edge = to if upright else first - 1
    least, typical, greatest = (round(bound(h, edge)) for h in found)
    # beyond the bounds of what a site can be given: nobody has typed these
    return HeightRange.model_construct(
        to_px=to, least_px=least, typical_px=typical, greatest_px=greatest
    )


def placement_seen(
    site: Site,
    placement: Placement,
    originals: Mapping[int, Original],
    conditions: Conditions = AS_USUAL,
) -> Placement:
    """The placement while some conditions hold. What then stands in for a part has taken its place;
    what does so on screens that stand upright still stands in. Where pictures are not there, each
    shows its colour alone."""
    features = conditions.features
    usual = placement.usual
    seen = placement
    if len(usual) < len(placement.parts) or placement.layout_under:
        seen = _folded(site, placement, originals, features)
    if conditions.pictures == "here":
        return seen
    resolved = resolve(site, seen)
    parts = [_only_colour(part, held) for part, held in zip(seen.parts, resolved, strict=True)]
    return seen.model_copy(update={"parts": tuple(parts)})


def _folded(
    site: Site,
    placement: Placement,
    originals: Mapping[int, Original],
    features: tuple[Feature, ...],
) -> Placement:
    resolved = resolve(site, placement)
    base = chosen_for(placement, resolved, features)
    turned = chosen_for(placement, resolved, all_of((*features, "portrait")))
    known = Known(originals, layout_of(placement).has_words)
    parts, variants = [], []
    for index, part in enumerate(placement.usual):
        places, mine = base.places[index], base.resolved[index]
        upright, over = turned.places[index], turned.resolved[index]
        if any(i != index for i in places.values()):
            fields = _fields(mine.values())
            own = {k: known.treatment(part, there, fields) for k, there in mine.items()}
            part = part.model_copy(update={"treatments": own})
        parts.append(part)
        if places != upright:
            fields = _fields([*mine.values(), *over.values()])
            own = {
                letter: Treatment(show="usual")
                if places[letter] == upright[letter]
                else known.treatment(part, over[letter], fields)
                for letter in over
            }
            variants.append(Part(of=part.key, when=("portrait",), role=part.role, treatments=own))
    changed: dict[str, Any] = {"parts": (*parts, *variants)}
    if placement.layout_under:
        changed["layout"] = to_set(handed_of_kind(site, placement, features))
        changed["layout_under"] = _upright_layout(site, placement, features)
    return placement.model_copy(update=changed)


def _fields(resolved: Iterable[Resolved]) -> frozenset[str]:
    """The fields that any of these sets, and what shows."""
    return frozenset(("show", *(f for there in resolved for f in there.handed.values)))


class Known(NamedTuple):
    """Originals, and whether a picture keeps its colour, as it does under words."""

    originals: Mapping[int, Original]
    has_words: bool

    def treatment(self, part: Part, held: Resolved, fields: Iterable[str]) -> Treatment:
        """What holds in a span as a treatment that hands nothing down: it says all of some fields,
        defaults too."""
        e = held.effective
        original = self.originals.get(e.original or 0)
        if not (self.has_words and part.role is None):
            e = on_its_own(held, original)
        own = {f: getattr(e, f) for f in fields}
        if "crop" in own and own["crop"] is None:
            own["crop"] = WHOLE
        if "keeps" in own and own["keeps"] is None:
            own["keeps"] = tuple(a.name for a in original.keeps) if original else ()
        if "original" in own and e.waits:
            # that there is none yet cannot be said over one that is handed down
            own["show"] = "colour"
        return Treatment(**own)


def _upright_layout(
    site: Site, placement: Placement, features: Sequence[Feature]
) -> tuple[LayoutUnder, ...]:
    """The kind's values on screens that stand upright, over those that have taken their places."""
    holds = {*features, "portrait"}
    turned = [u for u in placement.layout_under if "portrait" in u.when and set(u.when) <= holds]
    fields = {f for u in turned for own in u.layout.values() for f in own}
    if not fields:
        return ()
    held = {
        letter: there._replace(values={f: v for f, v in there.values.items() if f in fields})
        for letter, there in handed_of_kind(site, placement, all_of(holds)).items()
    }
    return (LayoutUnder(when=("portrait",), layout=to_set(held)),)


def _only_colour(part: Part, held: Mapping[str, Resolved]) -> Part:
    """The part with its colour alone in every span in which it shows a picture."""
    if part.of is not None:
        return part.model_copy(
            update={"treatments": {letter: Treatment(show="usual") for letter in held}}
        )
    treatments = dict(part.treatments)
    for letter, there in held.items():
        own = treatments.get(letter, Treatment())
        show = "colour" if there.effective.show == "picture" else there.effective.show
        treatments[letter] = own.model_copy(update={"show": show})
    return part.model_copy(update={"treatments": treatments})
