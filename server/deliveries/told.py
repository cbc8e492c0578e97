"""What is told of runs: their shapes, and each from its rows."""

from __future__ import annotations

import datetime
from collections import Counter
from collections.abc import Iterable, Mapping
from typing import Any, Literal

from django.db.models import QuerySet
from django.db.models.fields.json import KeyTextTransform
from django.utils import timezone
from ninja import Schema
from originals.models import preview_url
from placements.strips import THUMB_PX
from skypane import model
from skypane.comparing import DeliveryChanges, changes_between

from deliveries import runs, sweeping
from deliveries.models import SILENT_AFTER, Delivery, Worker

State = Literal["queued", "running", "stopping", "stopped", "done", "failed"]


class FileOut(Schema):
    """`why`: what makes it needed anew, or what it shares with a file that was there. `left_out`:
    made, but no smaller than an older format, and not handed over."""

    name: str
    key: str
    done: bool
    reused: bool
    left_out: bool
    why: str
    width_px: int | None
    height_px: int | None
    size_bytes: int | None
    quality: int | None
    ssim: float | None


class DeliveryRow(Schema):
    id: int
    scope: Delivery.Scope
    placement_id: int | None
    page_id: int | None
    name: str
    page: str  # of a placement, else ""
    by: str  # who started it; "" where that person is gone
    what: str  # which spans, densities and formats it is for
    thumbs: list[str]  # of the originals that it shows
    state: State
    total: int
    done: int
    reused: int
    handed: int  # files that are made and handed over, so far
    size_bytes: int  # of those
    seconds_left: int | None  # of an open run, as soon as that can be told
    effort: model.Effort  # quick: to look at
    message: str
    waits_for: str  # why an open run does not go on, as a sentence; "" while it does
    created: datetime.datetime
    finished: datetime.datetime | None


class DeliverySince(Schema):
    id: int
    added: int
    removed: int
    heavier: int
    lighter: int
    other: int
    bytes_more: int


class ListedDelivery(DeliveryRow):
    """`since`: what differs from the finished run before it of the same thing; null where there is
    none, or it is not finished itself."""

    since: DeliverySince | None


class DeliveryOut(DeliveryRow):
    current: str
    files: list[FileOut]
    is_current: bool  # of a finished run: whether what is saved still asks for exactly these files


class ChangesOut(DeliveryChanges):
    """`before` and `after` are ids of deliveries; their pictures are under `…/tree/0/<name>`."""

    before: int
    after: int


def whole() -> QuerySet[Delivery]:
    """Runs with what is said of them, in as many queries for one as for a hundred."""
    return Delivery.objects.select_related(
        "site", "page__site", "placement__page__site", "by"
    ).prefetch_related("files__rendition")


def _waits_for(delivery: Delivery, any_worker: bool) -> str:
    if delivery.state not in Delivery.OPEN:
        return ""
    # a busy worker may say late that it lives; one that is at this run says so there
    if delivery.beat is not None and delivery.state != Delivery.State.QUEUED:
        if delivery.beat >= timezone.now() - SILENT_AFTER:
            return ""
        if any_worker:
            return "Its worker has gone; another takes over in a moment."
    return "" if any_worker else "No worker is running: the export goes on as soon as one does."


def _what_for(asked: Mapping[str, Any]) -> str:
    """The spans, densities and formats of a run, as a phrase. A placement may have formats of its
    own."""
    site = asked["site"]
    spans = len(site["breakpoints"]) + 1
    densities = ", ".join(f"{d:g}x" for d in site["densities"])
    placements = [p for page in asked["pages"] for p in page["placements"]]
    found = {f for p in placements for f in p.get("formats") or site["formats"]}
    formats = ", ".join(words for f, words in _FORMATS.items() if f in found)
    return f"{spans} span{'s' if spans > 1 else ''} · {densities} · {formats}"


#: In the order in which markup offers them.
_FORMATS = {"avif": "AVIF", "webp": "WebP", "jpeg": "JPEG", "png": "PNG", "svg": "SVG"}


def row(delivery: Delivery, any_worker: bool) -> dict[str, Any]:
    files = delivery.files.all()
    asked = delivery.asked
    placement = delivery.placement
    handed = [f for f in files if f.rendition and not f.left_out]
    return {
        "id": delivery.id,
        "scope": delivery.scope,
        "placement_id": delivery.placement_id,
        "page_id": delivery.page_id,
        "name": asked["title"] or asked["pages"][0]["placements"][0]["name"],
        "page": placement.page.title if placement else "",
        "by": delivery.by.get_username() if delivery.by else "",
        "what": _what_for(asked),
        "thumbs": [preview_url(o["id"], THUMB_PX, o["sha256"]) for o in asked["originals"]],
        "state": delivery.state,
        "total": len(files),
        "done": sum(f.rendition is not None for f in files),
        "reused": sum(f.reused for f in files),
        "handed": len(handed),
        "size_bytes": sum(f.rendition.size_bytes for f in handed if f.rendition),
        "seconds_left": _seconds_left(delivery),
        "effort": asked.get("effort", "thorough"),
        "message": delivery.message,
        "waits_for": _waits_for(delivery, any_worker),
        "created": delivery.created,
        "finished": delivery.finished,
    }


#: Before so much time and so much of the work has passed nothing is said of the rest.
_SURE_SECONDS, _SURE_SHARE = 2.0, 0.03


def _seconds_left(delivery: Delivery) -> int | None:
    """By how long what is made since the run was claimed has taken."""
    if delivery.state != Delivery.State.RUNNING or delivery.began is None:
        return None
    fresh = [f for f in delivery.files.all() if not f.reused]
    made = [f for f in fresh if f.rendition and f.rendition.created >= delivery.began]
    done, open_ = sum(f.work for f in made), sum(f.work for f in fresh if not f.rendition)
    passed = (timezone.now() - delivery.began).total_seconds()
    if passed < _SURE_SECONDS or done < _SURE_SHARE * (done + open_) or not done:
        return None
    return round(passed / done * open_)


def out(delivery: Delivery) -> DeliveryOut:
    """A run with all its files. While it is open nothing is planned for this: it is asked for again
    and again."""
    done = delivery.state == Delivery.State.DONE
    return DeliveryOut(
        **row(delivery, delivery.state not in Delivery.OPEN or Worker.is_any()),
        current=delivery.current,
        files=[
            FileOut(
                name=f.name,
                key=f.key,
                done=made is not None,
                reused=f.reused,
                left_out=f.left_out,
                why=f.why,
                width_px=made.width_px if made else None,
                height_px=made.height_px if made else None,
                size_bytes=made.size_bytes if made else None,
                quality=made.quality if made else None,
                ssim=made.ssim if made else None,
            )
            for f, made in ((f, f.rendition) for f in delivery.files.all())
        ],
        is_current=done and runs.is_current(delivery),
    )


def _before(delivery: Delivery, among: Iterable[Delivery]) -> Delivery | None:
    """The finished run before this one of the same thing."""
    key = (delivery.scope, delivery.page_id, delivery.placement_id)
    return next(
        (
            d
            for d in among
            if d.id < delivery.id
            and d.state == Delivery.State.DONE
            and (d.scope, d.page_id, d.placement_id) == key
        ),
        None,
    )


def entries(delivery: Delivery) -> list[dict[str, Any]]:
    return [
        {"name": f.name, "sha256": f.rendition.sha256, "bytes": f.rendition.size_bytes}
        for f in delivery.files.all()
        if f.rendition and not f.left_out
    ]


def since(delivery: Delivery, among: Iterable[Delivery]) -> DeliverySince | None:
    before = _before(delivery, among) if delivery.state == Delivery.State.DONE else None
    if before is None:
        return None
    changes = changes_between(entries(before), entries(delivery))
    counts = Counter(f.change for f in changes.files)
    return DeliverySince(
        id=before.id,
        added=counts["added"],
        removed=counts["removed"],
        heavier=counts["heavier"],
        lighter=counts["lighter"],
        other=counts["other"],
        bytes_more=changes.after_bytes - changes.before_bytes,
    )


class ClearingOut(Schema):
    """What clearing removes: runs that a later one stands in for or that came to nothing, by name
    and day, and files that nothing else refers to."""

    deliveries: list[str]
    files: int
    size_bytes: int


def clearing_out(found: sweeping.Clearing) -> ClearingOut:
    names = dict(
        Delivery.objects.filter(id__in=[d.id for d in found.deliveries]).values_list(
            "id", KeyTextTransform("title", "asked")
        )
    )
    return ClearingOut(
        deliveries=[f"{names.get(d.id) or d.id}, {d.created:%d %B %Y}" for d in found.deliveries],
        files=len(found.renditions),
        size_bytes=found.size_bytes,
    )
