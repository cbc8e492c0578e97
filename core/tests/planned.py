"""Placements of one part, and what is computed of them."""

from types import SimpleNamespace

from skypane.handover import asked_for, blueprint
from skypane.model import Site
from skypane.reading import read
from skypane.shown.plan import plan
from skypane.treatments import resolve


def part_plan(site, placement, originals):
    """The only part of a placement, computed."""
    (part,) = plan(site, placement, originals).parts
    return part


def span_plans(site, placement, originals):
    """The same in all spans, from the narrowest."""
    return part_plan(site, placement, originals).spans


def effective(site, placement):
    """What holds for the only part, by letter."""
    (by_letter,) = resolve(site, placement)
    return {letter: held.effective for letter, held in by_letter.items()}


def own(placement):
    """What the only part of a placement sets itself."""
    (part,) = placement.parts
    return part.treatments


def treated(placement, treatments):
    """The placement with other treatments of its only part."""
    (part,) = placement.parts
    return placement.with_part(0, part.model_copy(update={"treatments": treatments}))


def read_part(site, placement, originals, *, chosen=None, **asked):
    """A reading with what it says of the only part beside what it says of all."""
    reading = read(site, placement, originals, chosen=chosen and (0, chosen), **asked)
    (part,) = reading.parts.values()
    of_all = {f: getattr(reading, f) for f in ("files", "findings", "code", "pane", "heights")}
    of_part = {f: getattr(part, f) for f in type(part).model_fields}
    return SimpleNamespace(whole=reading, **of_all, **of_part)


def by_density(**values):
    """A site that offers all its files by density."""
    return Site(lists="densities", **values)


def delivered(site, placement, originals):
    """The blueprint of one placement alone."""
    return blueprint(asked_for(site, placement, originals.values()))
