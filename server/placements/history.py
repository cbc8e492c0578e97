"""The history of a placement: versions named by what changed, kept so that undo and redo survive
the visit.

A history is a line of versions and a place on it. A change after an undo drops those that had been
undone, as everywhere.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from typing import Any

from common.db import locked
from django.contrib.auth.models import User
from originals.looks import Look
from originals.models import Original
from sites.models import Site
from skypane import changes, model

from placements.models import Placement, Version

#: Older versions are forgotten.
MOST_VERSIONS = 200

#: What a version's looks are stored as: original id → {"focal": [x, y], "areas": [...]}.
StoredLooks = dict[str, dict[str, Any]]


def stored_looks(originals: Mapping[int, model.Original]) -> StoredLooks:
    return {
        str(o.id): {
            "focal": list(o.focal),
            "areas": [a.model_dump(mode="json", exclude_none=True) for a in o.areas],
        }
        for o in originals.values()
    }


def looks_now(placement: Placement, noun: model.Placement) -> StoredLooks:
    """How the originals of a placement look in the rows."""
    found = Original.objects.filter(site=placement.page.site, id__in=noun.original_ids)
    return stored_looks({o.id: o.as_noun() for o in found})


def begin(placement: Placement, looks: StoredLooks | None = None) -> None:
    """The first version, where a placement has none."""
    if placement.versions.exists():
        return
    noun = placement.as_noun()
    looks = looks_now(placement, noun) if looks is None else looks
    Version.objects.create(
        placement=placement, position=0, body=placement.body, looks=looks, what="As it was"
    )
    placement.at = 0


def begin_all(site: Site, placements: Sequence[Placement]) -> None:
    """The first versions of placements of a site that have just been made, in one go."""
    known = {o.id: o.as_noun() for o in Original.objects.filter(site=site)}
    firsts = [
        Version(
            placement=placement,
            position=0,
            body=placement.body,
            looks=stored_looks({i: known[i] for i in noun.original_ids if i in known}),
            what="As it was",
        )
        for placement, noun in ((p, p.as_noun()) for p in placements)
    ]
    Version.objects.bulk_create(firsts, batch_size=200)


def version(body: Any, looks: StoredLooks, names: Mapping[int, str]) -> changes.Version:
    return changes.Version(
        model.Placement.model_validate(body),
        {
            int(i): changes.Look(
                names.get(int(i), "an original"),
                tuple(look["focal"]),
                tuple(model.Area.model_validate(a) for a in look["areas"]),
            )
            for i, look in looks.items()
        },
    )


def _names(placement: Placement) -> dict[int, str]:
    return dict(Original.objects.filter(site=placement.page.site).values_list("id", "name"))


def add(
    placement: Placement,
    after: int,
    versions: Sequence[tuple[Any, StoredLooks]],
    by: User | None,
    what: str | None = None,
) -> None:
    """Put versions after the one at position `after`; those beyond it are dropped. The placement
    is at the last of them."""
    placement.versions.filter(position__gt=after).delete()
    last = placement.versions.filter(position=after).first()
    names = _names(placement)
    before = version(last.body, last.looks, names) if last else None
    for offset, (body, looks) in enumerate(versions, 1):
        this = version(body, looks, names)
        said = what or (changes.named(before, this) if before else "As it was")
        Version.objects.create(
            placement=placement, position=after + offset, body=body, looks=looks, what=said, by=by
        )
        before = this
    placement.at = after + len(versions)
    placement.versions.filter(position__lte=placement.at - MOST_VERSIONS).delete()


def record(
    placement: Placement,
    noun: model.Placement,
    looks: StoredLooks,
    by: User | None,
    what: str | None = None,
) -> None:
    """Keep a placement as a new version. The row is saved with a new revision."""
    add(
        placement,
        placement.at,
        [(noun.model_dump(mode="json", exclude_none=True), looks)],
        by,
        what,
    )
    placement.keep(noun)


def lock_for_looks(
    site: Site, looks: Mapping[int, Look], own: int | None = None, used: Iterable[int] = ()
) -> tuple[dict[int, Original], dict[int, Placement]]:
    """The originals that are to look otherwise and the placements that this changes, locked in the
    order that everybody keeps to: originals by id, then placements by id. `own` is a placement that
    is saved with them, `used` the originals that it shows: none of them can go meanwhile.

    Placements of others are locked only where an area is called otherwise, since only then do they
    follow.
    """
    rows = locked(Original, {*looks, *used})
    originals = {i: o for i, o in rows.items() if i in looks and o.site_id == site.id}
    ids = {own} if own is not None else set()
    if any(changes.renamed(o.as_noun().areas, looks[i].areas) for i, o in originals.items()):
        ids |= set(Placement.objects.filter(page__site=site).values_list("id", flat=True))
    return originals, locked(Placement, ids)


def look_anew(
    original: Original,
    focal: tuple[float, float],
    areas: tuple[model.Area, ...],
    by: User | None,
    others: Iterable[Placement],
) -> None:
    """Another focal point and other areas for an original. Where an area is called otherwise, the
    spans of `others` that name it and show this original follow, as a version of their placement; a
    placement that is being saved brings its own names.
    """
    names = changes.renamed(original.as_noun().areas, areas)
    original.look(focal, areas)
    if names is None:
        return
    site = original.site.as_noun()
    for placement in others:
        noun = placement.as_noun()
        follows = changes.with_area_renamed(site, noun, original.id, names)
        if follows != noun:
            begin(placement)
            record(
                placement,
                follows,
                looks_now(placement, follows),
                by,
                "{} is called {}".format(*names),
            )


def step_back(placement: Placement) -> model.Placement | None:
    """One step back in a placement's own history; None where there is none. Looks are left as they
    are."""
    before = placement.versions.filter(position=placement.at - 1).first()
    if before is None:
        return None
    noun = model.Placement.model_validate(before.body)
    placement.at -= 1
    placement.keep(noun)
    return noun
