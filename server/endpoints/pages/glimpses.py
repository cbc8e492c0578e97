"""A page as it was last read, kept beside what it was worked out of: while nothing of that has
changed it is not read again, and one that has changed shows as it was until it is."""

from __future__ import annotations

import json
import logging
from collections.abc import Mapping, Sequence
from hashlib import blake2b
from typing import Any

from deliveries.models import Rendition
from django.db.models import Count, Max
from placements.glimpses import print_of_rules, prints_of_originals
from placements.models import Placement
from pydantic import ValidationError
from sites.models import Page
from skypane import PageReading

log = logging.getLogger(__name__)


def made_of(page: Page, rows: Sequence[Placement], called: Mapping[int, str]) -> dict[str, Any]:
    """What the reading of a page is worked out of: a print of it, beside the prints of all
    originals of its site, of which only some may be used."""
    made = Rendition.objects.aggregate(last=Max("id"), n=Count("id"))
    placements = [(row.id, row.revision, called.get(row.id)) for row in rows]
    told = [page.title, page.layout, page.site.revision, placements, made, print_of_rules()]
    said = json.dumps(told, sort_keys=True, default=str)
    return {
        "print": blake2b(said.encode(), digest_size=16).hexdigest(),
        "originals": {str(i): p for i, p in prints_of_originals(page.site).items()},
    }


def remembered(page: Page, now: dict[str, Any]) -> tuple[PageReading | None, bool]:
    """The page as it was last read, None where it never was; and whether it is still so."""
    kept = page.glimpse
    if not kept:
        return None, False
    try:
        reading = PageReading.model_validate(kept["seen"])
        of, used = kept["print"], kept["originals"]
    except (ValidationError, KeyError, TypeError) as problem:
        # of another version of this program
        log.info("A glimpse of page %s cannot be read: %s", page.id, problem)
        return None, False
    is_same = all(now["originals"].get(i) == print_ for i, print_ in used.items())
    return reading, of == now["print"] and is_same


def remember(page: Page, was: dict[str, Any], used: Sequence[int], reading: PageReading) -> None:
    """Keep a reading beside what it `was` made of, and the originals that it used."""
    prints = was["originals"]
    page.glimpse = {
        "print": was["print"],
        "originals": {str(i): prints.get(str(i)) for i in sorted(used)},
        "seen": reading.model_dump(mode="json"),
    }
    Page.objects.filter(id=page.id).update(glimpse=page.glimpse)
