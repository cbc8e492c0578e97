"""Runs: what one is asked for, begun and gone on with, and what it hands over.

What a run hands over is planned once, at its start, and stored with it.
"""

from __future__ import annotations

import json
from collections.abc import Iterable
from typing import Any, NamedTuple

from common.db import in_one_go, locked, locked_one
from common.keys import sign
from django.contrib.auth.models import User
from django.core.files.storage import default_storage
from originals.intake import look_for_tiny
from originals.models import Original
from placements.models import (
    Placement,
    called_nouns,
    layout_by_place,
    on_page,
    originals_behind,
    originals_in,
    stems_of,
)
from sites.models import Page, Site
from skypane import model
from skypane.comparing import why_made
from skypane.errors import SkyPaneError
from skypane.files.names import first_name
from skypane.handover import Asked, AskedPage, Blueprint, FileFacts, blueprint, finish
from skypane.markup.addresses import FOLDER

from deliveries.models import Delivery, DeliveryFile, Rendition

State = Delivery.State


class Target(NamedTuple):
    """What a run is of: a placement, a page, or the whole site where both are None."""

    site: Site
    page: Page | None = None
    placement: Placement | None = None

    @property
    def scope(self) -> Delivery.Scope:
        if self.placement is not None:
            return Delivery.Scope.PLACEMENT
        return Delivery.Scope.SITE if self.page is None else Delivery.Scope.PAGE

    @classmethod
    def of(cls, delivery: Delivery) -> Target:
        return cls(delivery.site, delivery.page, delivery.placement)


def _asked_pages(target: Target) -> list[tuple[Page, list[Placement]]]:
    """The pages of a target that show anything, with what is asked for of them."""
    if target.placement is not None:
        row = Placement.objects.select_related("page").get(id=target.placement.id)
        return [(row.page, [row])]
    pages = [target.page] if target.page else list(target.site.pages.all())
    found = [(page, on_page(page)) for page in pages]
    return [(page, rows) for page, rows in found if rows]


def asked_now(target: Target, effort: model.Effort = "thorough") -> Asked:
    """What would be asked for as everything is saved now."""
    site, called = target.site, stems_of(target.site)
    pages: list[AskedPage] = []
    for page, rows in _asked_pages(target):
        nouns = called_nouns(rows, called)
        layout = {} if target.placement else layout_by_place(page, rows)
        pages.append(AskedPage(title=page.title, placements=tuple(nouns), layout=layout))
    nouns = [n for page in pages for n in page.placements]
    look_for_tiny(site, originals_behind(nouns))
    title = {
        Delivery.Scope.PLACEMENT: lambda: pages[0].placements[0].name,
        Delivery.Scope.PAGE: lambda: target.page.title if target.page else "",
        Delivery.Scope.SITE: lambda: site.name,
    }[target.scope]()
    return Asked(
        scope=target.scope.value,
        effort=effort,
        title=title,
        site=site.as_noun(),
        pages=tuple(pages),
        originals=tuple(originals_in(site, nouns).values()),
    )


def _written(plan: Blueprint) -> dict[str, Any]:
    """A blueprint as it is stored with its run, until its files are made."""
    files = [r.model_dump(mode="json") for r in plan.files]
    return {"texts": plan.texts, "files": files}


def is_current(delivery: Delivery) -> bool:
    """Whether what is saved now would be delivered exactly so."""
    try:
        now = blueprint(asked_now(Target.of(delivery), delivery_asked(delivery).effort), sign)
    except SkyPaneError:
        return False
    files = [f.model_dump(mode="json") for f in now.files]
    if files != written_of(delivery)["files"]:
        return False
    texts = finish(now, facts_of(delivery.files.select_related("rendition"))).texts
    return texts == texts_of(delivery)


def delivery_asked(delivery: Delivery) -> Asked:
    """What the run was asked for."""
    return Asked.model_validate(delivery.asked)


def start(target: Target, user: User, effort: model.Effort = "thorough") -> tuple[Delivery, bool]:
    """The run of a target that is open, or a new one and True: what is asked for is frozen, and all
    its files have rows.

    Raises InvalidPlan where there is nothing to export.
    """

    def begin() -> tuple[Delivery, bool]:
        # whoever presses at the same moment waits here
        if target.placement is not None:
            locked_one(Placement, target.placement.id)
        else:
            locked_one(Site, target.site.id)
        same = Delivery.objects.filter(
            site=target.site, scope=target.scope, page=target.page, placement=target.placement
        )
        going = same.filter(state__in=Delivery.OPEN).first()
        return (going, False) if going else (_new(target, user, effort), True)

    return in_one_go(begin)


def _new(target: Target, user: User, effort: model.Effort) -> Delivery:
    asked = asked_now(target, effort)
    plan = blueprint(asked, sign)
    plan.check_pictures()
    delivery = Delivery.objects.create(
        site=target.site,
        scope=target.scope,
        page=target.page,
        placement=target.placement,
        by=user,
        asked=asked.model_dump(mode="json"),
        written=_written(plan),
    )
    made = {r.key: r for r in Rendition.objects.filter(key__in=[f.key for f in plan.files])}
    before = {first_name(f["name"]): f for f in _entries(_last_done(delivery))}
    hashes = {o.id: o.sha256 for o in asked.originals}
    DeliveryFile.objects.bulk_create(
        DeliveryFile(
            delivery=delivery,
            position=i,
            name=FOLDER + f.name,
            key=f.key,
            rendition=made.get(f.key),
            reused=f.key in made,
            work=f.work,
            why=(
                "the same cut, size, format and likeness"
                if f.key in made
                else why_made(f, hashes[f.original], before.get(first_name(FOLDER + f.name)))
            ),
        )
        for i, f in enumerate(plan.files)
    )
    return delivery


def remember_cuts(delivery: Delivery, plan: Blueprint) -> None:
    """What a run hands over is kept with its placements: another cut will have another name."""

    def remember() -> None:
        ids = {called: id_ for id_, called in stems_of(delivery.site).items()}
        cuts = {ids[called]: cuts for called, cuts in plan.handed().items() if called in ids}
        for row in locked(Placement, cuts).values():
            for slot, cut in cuts[row.id].items():
                known = row.handed.setdefault(slot, [])
                if cut not in known:
                    known.append(cut)
            row.save(update_fields=["handed"])

    in_one_go(remember)


def _last_done(delivery: Delivery) -> Delivery | None:
    return delivery.same_target.filter(state=State.DONE).exclude(id=delivery.id).first()


def _entries(delivery: Delivery | None) -> list[dict[str, Any]]:
    """What the manifest of a finished run says of its files; runs of older code say no keys."""
    if delivery is None:
        return []
    found: list[dict[str, Any]] = json.loads(texts_of(delivery)["manifest.json"])["files"]
    return found


def resume(delivery_id: int) -> bool:
    """Queue a run again that was stopped or failed: it goes on where it was. False where it is in
    another state."""
    ended = Delivery.objects.filter(id=delivery_id, state__in=(State.STOPPED, State.FAILED))
    return bool(ended.update(state=State.QUEUED, claim="", claims=0, message="", finished=None))


def site_of_run(delivery: Delivery) -> model.Site:
    """The site as it was when the run was started."""
    return delivery_asked(delivery).site


def written_of(delivery: Delivery) -> dict[str, Any]:
    """What the run hands over. One from before this was stored has it worked out once, and
    stored."""
    if delivery.written is None:
        delivery.written = _written(blueprint(delivery_asked(delivery), sign))
        delivery.save(update_fields=["written"])
    found: dict[str, Any] = delivery.written
    return found


def texts_of(delivery: Delivery) -> dict[str, str]:
    """Pages, snippets and style sheets, and manifest.json once all files are there."""
    texts: dict[str, str] = written_of(delivery)["texts"]
    return texts


def original_asked(delivery: Delivery, id_: int) -> Original | None:
    """An original with the bytes that it had when the run was asked for; None where it was removed
    or replaced meanwhile."""
    sha256 = next(o["sha256"] for o in delivery.asked["originals"] if o["id"] == id_)
    return Original.objects.filter(id=id_, sha256=sha256).first()


def facts_of(files: Iterable[DeliveryFile]) -> dict[str, FileFacts]:
    """What the made files turned out to be, by key."""
    return {
        f.key: FileFacts(r.size_bytes, r.sha256, r.quality or 0, r.ssim or 0.0)
        for f in files
        if (r := f.rendition) is not None
    }


def is_stored(delivery: Delivery) -> bool:
    """Whether the zip of a finished run can be given out."""
    return delivery.state == State.DONE and default_storage.exists(delivery.stored_zip)
