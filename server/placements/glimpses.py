"""What lists show of a placement, kept beside what it was worked out of: while nothing of that has
changed it is not worked out again, and what has changed shows as it was until it is."""

from __future__ import annotations

import logging
from functools import cache
from hashlib import blake2b
from pathlib import Path
from typing import Any, NamedTuple

import skypane
from ninja import Schema
from originals.copies import copies_of
from originals.models import Original
from pydantic import ValidationError
from sites.models import Site
from skypane import InvalidPlan, findings_of, model, plan

from placements.models import Placement, originals_in, placements_of
from placements.strips import StripScreenOut, strip_screens_out

log = logging.getLogger(__name__)


class Glimpse(Schema):
    """A placement at a glance. `error` says why it cannot be computed."""

    name: str
    kind: str
    lead: bool
    pictures: int  # without what lies on them, or takes their place in portrait
    strip: list[StripScreenOut]
    findings: list[model.Finding]
    error: str | None


class Glimpsed(NamedTuple):
    """A placement's row with what is known of it; None where nothing is. `is_current`: it was
    worked out of what is there now."""

    row: Placement
    glimpse: Glimpse | None
    is_current: bool


ALL = slice(None)


@cache
def print_of_rules() -> str:
    """A print of the rules: other rules may see a placement otherwise."""
    hashed = blake2b(digest_size=8)
    for path in sorted(Path(skypane.__file__).parent.rglob("*.py")):
        hashed.update(path.read_bytes())
    return hashed.hexdigest()


def remembered(site: Site, of: slice = ALL) -> list[Glimpsed]:
    """Placements of a site as they were last seen, all or some in their order; nothing is worked
    out."""
    rows = list(placements_of(site)[of])
    prints, pages = prints_of_originals(site), _pages(site)
    return [_remembered(site, row, prints, pages) for row in rows]


def glimpses(site: Site, of: slice = ALL) -> list[Glimpsed]:
    """Placements at a glance as they are now; what has changed is worked out, and kept."""
    rows = list(placements_of(site)[of])
    # read before the originals: one that changes in between leaves a glimpse that is out of date,
    # not one that passes for current
    prints, pages = prints_of_originals(site), _pages(site)
    found = [_remembered(site, row, prints, pages) for row in rows]
    stale = [g.row for g in found if not g.is_current]
    if not stale:
        return found
    # some stand in for others of their page
    of_pages = {row.page_id for row in stale}
    nouns = {row: row.as_noun() for row in placements_of(site).filter(page_id__in=of_pages)}
    originals = originals_in(site, (row.as_noun() for row in stale))
    plan_ = site.as_noun()
    made = {}
    kept = []
    for row in stale:
        others = [n for r, n in nouns.items() if r.page_id == row.page_id and r != row]
        noun = row.as_noun()
        made[row.id], is_whole = _seen(plan_, noun, originals, others)
        if is_whole:
            made_of = _of(site, row, noun.original_ids, prints, pages)
            row.glimpse = {"of": made_of, "seen": made[row.id].model_dump(mode="json")}
            kept.append(row)
    Placement.objects.bulk_update(kept, ["glimpse"])
    return [g if g.is_current else Glimpsed(g.row, made[g.row.id], True) for g in found]


def _seen(
    site: model.Site,
    noun: model.Placement,
    originals: dict[int, model.Original],
    others: list[model.Placement],
) -> tuple[Glimpse, bool]:
    """A placement at a glance, and whether all that it takes was to be had."""
    error, computed = "", None
    try:
        computed = plan(site, noun, originals)
    except InvalidPlan as problem:
        error = str(problem)
    findings = findings_of(computed, copies_of, lambda: others) if computed else []
    glimpse = Glimpse(
        name=noun.name,
        kind=noun.kind,
        lead=noun.lead,
        pictures=sum(part.role is None for part in noun.parts),
        strip=strip_screens_out(computed) if computed else [],
        findings=findings,
        error=error or None,
    )
    # whether words can be read is not known while the px of their picture cannot be had
    worded = computed.parts[0].shown if computed and computed.layout.has_words else ()
    return glimpse, all(copies_of(p.original) is not None for p in worded)


def prints_of_originals(site: Site) -> dict[int, str]:
    """What of each original a placement may depend on, by id."""
    rows = Original.objects.filter(site=site).values_list("id", "revision", "sha256", "alt", "tags")
    return {id_: blake2b(repr(rest).encode(), digest_size=8).hexdigest() for id_, *rest in rows}


def _pages(site: Site) -> dict[int, str]:
    """A print of all placements of each page: some stand in for others."""
    rows = Placement.objects.filter(page__site=site).values_list("page_id", "id", "revision")
    found: dict[int, list[tuple[int, int]]] = {}
    for page, *rest in rows:
        found.setdefault(page, []).append((rest[0], rest[1]))
    return {
        page: blake2b(repr(sorted(each)).encode(), digest_size=8).hexdigest()
        for page, each in found.items()
    }


def _of(
    site: Site, row: Placement, used: set[int], originals: dict[int, str], pages: dict[int, str]
) -> dict[str, Any]:
    """What a glimpse is worked out of."""
    return {
        "placement": row.revision,
        "site": site.revision,
        "rules": print_of_rules(),
        "originals": {str(i): originals.get(i) for i in sorted(used)},
        "page": pages[row.page_id] if row.body.get("one_of") else None,
    }


def _remembered(
    site: Site, row: Placement, originals: dict[int, str], pages: dict[int, str]
) -> Glimpsed:
    kept = row.glimpse
    if not kept:
        return Glimpsed(row, None, False)
    try:
        glimpse = Glimpse.model_validate(kept["seen"])
        used = {int(i) for i in kept["of"]["originals"]}
    except (ValidationError, KeyError, TypeError, ValueError) as problem:
        # of another version of this program
        log.info("A glimpse of placement %s cannot be read: %s", row.id, problem)
        return Glimpsed(row, None, False)
    return Glimpsed(row, glimpse, kept["of"] == _of(site, row, used, originals, pages))
