"""Which other originals advice may propose in a placement."""

from __future__ import annotations

from collections.abc import Mapping

from django.db.models import Q
from sites.models import Site
from skypane import belongs, model

from placements.models import Placement

#: How many other originals advice looks at; the newest of a very large site.
MOST_PROPOSED = 40


def proposable(
    site: Site, used: Mapping[int, model.Original], placement_id: int | None
) -> dict[int, model.Original]:
    """Other originals of which somebody has said what matters in them, and that belong here."""
    on_page = ids_on_page(site, placement_id)
    wanted = Q(id__in=on_page)
    for tag in {t for o in used.values() for t in o.tags}:
        wanted |= Q(tags__contains=[tag])
    found = site.originals.filter(wanted).exclude(id__in=list(used)).exclude(areas=[])
    nouns = found[:MOST_PROPOSED].nouns()
    return {i: o for i, o in nouns.items() if belongs(o, used.values(), on_page)}


def ids_on_page(site: Site, placement_id: int | None) -> set[int]:
    """The originals that the placements of the same page use."""
    if placement_id is None:
        return set()
    rows = Placement.objects.filter(page__site=site, page__placements=placement_id)
    return set().union(*(p.as_noun().original_ids for p in rows))
