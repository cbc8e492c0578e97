"""Named frames of a site: made after a placement, taken by others, left again."""

from __future__ import annotations

from typing import Any

from skypane.errors import InvalidPlan
from skypane.identifiers import identifier, next_free
from skypane.model import FrameValues, NamedFrame, Placement, Site, Treatment, Treatments
from skypane.treatments import OF_FRAME, frame_treatments, own_values


def named_from(site: Site, placement: Placement, name: str) -> tuple[Site, Placement]:
    """The site with a named frame that is as the placement's own is now, and the placement using
    it. What the parts of it say themselves stays with them. Raises InvalidPlan where the name is
    taken."""
    alone = parted(site, placement)
    own = alone.parts[0].treatments if len(alone.usual) == 1 else {}
    spans: dict[str, dict[str, Any]] = {}
    for treatments in (alone.common, own):
        for letter, treatment in treatments.items():
            said = {f: v for f, v in own_values(treatment).items() if f in OF_FRAME}
            if said:
                spans[letter] = {**spans.get(letter, {}), **said}
    if any(f.name == name for f in site.frames):
        raise InvalidPlan(f"There is a frame called {name} already. Give another name.")
    frame = NamedFrame(
        id=next_free(identifier(name, "frame")[:36].strip("-"), [f.id for f in site.frames]),
        name=name,
        spans={letter: FrameValues(**said) for letter, said in spans.items()},
    )
    return site.model_copy(update={"frames": (*site.frames, frame)}), using(alone, frame.id)


def using(placement: Placement, frame: str) -> Placement:
    """The placement with a named frame in the place of what it says of its frame itself."""

    def without(treatments: Treatments) -> Treatments:
        out = {}
        for letter, own in treatments.items():
            rest = {f: v for f, v in own_values(own).items() if f not in OF_FRAME}
            if rest:
                out[letter] = Treatment(**rest)
        return out

    only = len(placement.usual) == 1
    parts = tuple(
        part.model_copy(update={"treatments": without(part.treatments)})
        if only and part.of is None
        else part
        for part in placement.parts
    )
    changed = {"frame": frame, "common": without(placement.common), "parts": parts}
    return placement.model_copy(update=changed)


def parted(site: Site, placement: Placement) -> Placement:
    """The placement without its named frame, whose values become its own wherever they hold."""
    if placement.frame is None:
        return placement
    common = dict(placement.common)
    for letter, said in frame_treatments(site, placement).items():
        over = own_values(common[letter]) if letter in common else {}
        common[letter] = Treatment(**{**own_values(said), **over})
    return placement.model_copy(update={"frame": None, "common": common})
