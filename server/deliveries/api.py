"""Deliveries: start, follow, stop, download, and the delivered page as a browser gets it."""

from __future__ import annotations

import datetime
import mimetypes
from collections import Counter
from collections.abc import Iterable, Mapping
from typing import Annotated, Any, Literal

from config.bodies import Body
from config.problems import Problem, Refused
from django.core.files.storage import default_storage
from django.db.models import QuerySet
from django.db.models.fields.json import KeyTextTransform
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.utils import timezone
from ninja import Router, Schema, Status
from originals.models import preview_url
from placements.models import Placement
from placements.strips import THUMB_PX
from pydantic import Field
from sites.access import row_for, site_for
from sites.models import Page
from skypane import model, proof
from skypane.comparing import DeliveryChanges, changes_between
from skypane.identifiers import identifier
from skypane.markup.picture import TYPES

from deliveries import runs, sweeping
from deliveries.models import SILENT_AFTER, Delivery, Worker
from deliveries.tasks import send

router = Router()
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
    size_bytes: int  # so far
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


class PicksIn(Body):
    """Which browsers are asked about. Without cases: both bounds of every span at each density."""

    densities: Annotated[list[Annotated[float, Field(gt=0, le=10)]], Field(max_length=8)] = [1, 2]
    formats: proof.Formats = "all"
    cases: Annotated[list[proof.Case], Field(max_length=200)] | None = None


def _mine(request: HttpRequest, delivery_id: int, *, looking: bool | None = None) -> Delivery:
    return row_for(request, _whole(), "site", delivery_id, looking=looking)


def _whole() -> QuerySet[Delivery]:
    """Runs with what is said of them, in as many queries for one as for a hundred."""
    return Delivery.objects.select_related(
        "site", "page__site", "placement__page__site", "by"
    ).prefetch_related("files__rendition")


def _waits_for(delivery: Delivery, any_worker: bool) -> str:
    if delivery.state not in Delivery.OPEN:
        return ""
    if not any_worker:
        return "No worker is running: the export goes on as soon as one does."
    silent = delivery.beat is not None and delivery.beat < timezone.now() - SILENT_AFTER
    return "Its worker has gone; another takes over in a moment." if silent else ""


def _what_for(site: Mapping[str, Any]) -> str:
    """The spans, densities and formats of a run, as a phrase."""
    spans = len(site["breakpoints"]) + 1
    densities = ", ".join(f"{d:g}x" for d in site["densities"])
    words = {"avif": "AVIF", "webp": "WebP", "jpeg": "JPEG"}
    formats = ", ".join(words.get(f, f) for f in site["formats"])
    return f"{spans} span{'s' if spans > 1 else ''} · {densities} · {formats}"


def _row(delivery: Delivery, any_worker: bool) -> dict[str, object]:
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
        "what": _what_for(asked["site"]),
        "thumbs": [preview_url(o["id"], THUMB_PX, o["sha256"]) for o in asked["originals"]],
        "state": delivery.state,
        "total": len(files),
        "done": sum(f.rendition is not None for f in files),
        "reused": sum(f.reused for f in files),
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


def _out(delivery: Delivery) -> DeliveryOut:
    """A run with all its files. While it is open nothing is planned for this: it is asked for again
    and again."""
    done = delivery.state == Delivery.State.DONE
    return DeliveryOut(
        **_row(delivery, delivery.state not in Delivery.OPEN or Worker.is_any()),
        current=delivery.current,
        files=[
            FileOut(
                name=f.name,
                key=f.key,
                done=f.rendition is not None,
                reused=f.reused,
                left_out=f.left_out,
                why=f.why,
                width_px=f.rendition and f.rendition.width_px,
                height_px=f.rendition and f.rendition.height_px,
                size_bytes=f.rendition and f.rendition.size_bytes,
                quality=f.rendition and f.rendition.quality,
                ssim=f.rendition and f.rendition.ssim,
            )
            for f in delivery.files.all()
        ],
        is_current=done and runs.is_current(delivery),
    )


def _begin(
    request: HttpRequest, target: runs.Target, effort: model.Effort = "thorough"
) -> Status[DeliveryOut]:
    delivery, is_new = runs.start(target, request.user, effort)
    if is_new:
        _wake(delivery.id)
    return Status(201, _out(_mine(request, delivery.id)))


def _wake(delivery_id: int) -> None:
    if not send(delivery_id):
        message = "The queue cannot be reached: the export begins when it is back."
        queued = Delivery.objects.filter(id=delivery_id, state=Delivery.State.QUEUED)
        queued.update(message=message)


@router.post(
    "/placements/{int:placement_id}/deliveries",
    response={201: DeliveryOut, 404: Problem, 422: Problem},
)
def start_delivery(
    request: HttpRequest, placement_id: int, effort: model.Effort = "thorough"
) -> Status[DeliveryOut]:
    """Export a placement as it is saved; `quick` to look at what comes of it. A run of it that is
    still open is answered instead of a second one."""
    rows = Placement.objects.select_related("page__site")
    placement = row_for(request, rows, "page__site", placement_id)
    return _begin(request, runs.Target(placement.page.site, placement=placement), effort)


@router.post(
    "/pages/{int:page_id}/deliveries", response={201: DeliveryOut, 404: Problem, 422: Problem}
)
def start_page_delivery(request: HttpRequest, page_id: int) -> Status[DeliveryOut]:
    """Export all placements of a page that have a picture, as one page."""
    page = row_for(request, Page.objects.select_related("site"), "site", page_id)
    return _begin(request, runs.Target(page.site, page=page))


@router.post(
    "/sites/{int:site_id}/deliveries", response={201: DeliveryOut, 404: Problem, 422: Problem}
)
def start_site_delivery(request: HttpRequest, site_id: int) -> Status[DeliveryOut]:
    """Export all placements of a site that have a picture, page by page."""
    return _begin(request, runs.Target(site_for(request, site_id)))


@router.get(
    "/placements/{int:placement_id}/deliveries/latest",
    response={200: DeliveryOut | None, 404: Problem},
)
def latest_delivery(
    request: HttpRequest, placement_id: int, state: Literal["any", "done"] = "any"
) -> DeliveryOut | None:
    placement = row_for(request, Placement.objects.all(), "page__site", placement_id)
    found = _whole().filter(placement=placement, scope=Delivery.Scope.PLACEMENT)
    found = found.filter(state=Delivery.State.DONE) if state == "done" else found
    delivery = found.first()
    return _out(delivery) if delivery else None


@router.get("/sites/{int:site_id}/deliveries", response={200: list[ListedDelivery], 404: Problem})
def list_deliveries(request: HttpRequest, site_id: int) -> list[ListedDelivery]:
    """The latest hundred runs of a site."""
    site = site_for(request, site_id)
    found = list(_whole().filter(site=site).defer("written")[:100])
    any_worker = Worker.is_any()
    return [
        ListedDelivery(**_row(d, any_worker), since=_since(d, found))  # type: ignore[arg-type]
        for d in found
    ]


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


def _entries(delivery: Delivery) -> list[dict[str, Any]]:
    return [
        {"name": f.name, "sha256": f.rendition.sha256, "bytes": f.rendition.size_bytes}
        for f in delivery.files.all()
        if f.rendition and not f.left_out
    ]


def _since(delivery: Delivery, among: Iterable[Delivery]) -> DeliverySince | None:
    before = _before(delivery, among) if delivery.state == Delivery.State.DONE else None
    if before is None:
        return None
    changes = changes_between(_entries(before), _entries(delivery))
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


@router.get(
    "/deliveries/{int:delivery_id}/changes",
    response={200: ChangesOut | None, 404: Problem, 409: Problem},
)
def delivery_changes(
    request: HttpRequest, delivery_id: int, since: int | None = None
) -> ChangesOut | None:
    """What differs between a finished run and an earlier one, by default the one before it of the
    same thing; null where there is none."""
    delivery = _mine(request, delivery_id)
    if since is not None:
        before = row_for(request, _whole(), "site", since)
    else:
        done = _whole() & delivery.same_target.filter(state=Delivery.State.DONE)
        found = done.filter(id__lt=delivery.id).first()
        if found is None:
            return None
        before = found
    for d in (before, delivery):
        if d.state != Delivery.State.DONE:
            raise Refused("Only finished exports can be compared.", status=409)
    changes = changes_between(_entries(before), _entries(delivery))
    return ChangesOut(before=before.id, after=delivery.id, **dict(changes))


class ClearingOut(Schema):
    """What clearing removes: runs that a later one stands in for or that came to nothing, by name
    and day, and files that nothing else refers to."""

    deliveries: list[str]
    files: int
    size_bytes: int


def _clearing_out(found: sweeping.Clearing) -> ClearingOut:
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


@router.get("/sites/{int:site_id}/deliveries/clearing", response={200: ClearingOut, 404: Problem})
def preview_clearing(request: HttpRequest, site_id: int) -> ClearingOut:
    """What clearing would remove. Nothing is changed."""
    return _clearing_out(sweeping.clearing(site_for(request, site_id)))


@router.post("/sites/{int:site_id}/deliveries/clearing", response={200: ClearingOut, 404: Problem})
def clear_deliveries(request: HttpRequest, site_id: int) -> ClearingOut:
    """Remove it."""
    site = site_for(request, site_id)
    told = _clearing_out(sweeping.clearing(site))
    sweeping.clear(site)
    return told


@router.get("/deliveries/{int:delivery_id}", response={200: DeliveryOut, 404: Problem})
def read_delivery(request: HttpRequest, delivery_id: int) -> DeliveryOut:
    return _out(_mine(request, delivery_id))


@router.post("/deliveries/{int:delivery_id}/stop", response={200: DeliveryOut, 404: Problem})
def stop_delivery(request: HttpRequest, delivery_id: int) -> DeliveryOut:
    """Stop after the file in hand. A run that has ended already is answered as it is."""
    delivery = _mine(request, delivery_id)
    Delivery.objects.filter(id=delivery.id, state=Delivery.State.RUNNING).update(
        state=Delivery.State.STOPPING
    )
    Delivery.objects.filter(id=delivery.id, state=Delivery.State.QUEUED).update(
        state=Delivery.State.STOPPED, message="Stopped before it began."
    )
    return _out(_mine(request, delivery_id))


@router.post(
    "/deliveries/{int:delivery_id}/resume",
    response={200: DeliveryOut, 404: Problem, 409: Problem},
)
def resume_delivery(request: HttpRequest, delivery_id: int) -> DeliveryOut:
    """Go on with a run that was stopped or failed; what is made is not made again."""
    delivery = _mine(request, delivery_id)
    if not runs.resume(delivery.id):
        raise Refused("This export has not ended early, so it cannot go on.", status=409)
    _wake(delivery.id)
    return _out(_mine(request, delivery_id))


@router.get("/deliveries/{int:delivery_id}/zip", response={200: None, 404: Problem, 409: Problem})
def download(request: HttpRequest, delivery_id: int) -> HttpResponseBase:
    """Everything of a finished run as one zip."""
    delivery = _mine(request, delivery_id)
    if not runs.is_stored(delivery):
        ended = delivery.state == Delivery.State.DONE
        said = (
            "Its zip is no longer stored. Export again"
            if ended
            else "This export is not finished. Wait until it is"
        )
        raise Refused(f"{said}, or start it again." if not ended else f"{said}.", status=409)
    return FileResponse(
        default_storage.open(delivery.stored_zip),
        as_attachment=True,
        filename=f"{identifier(runs.delivery_asked(delivery).name)}-{delivery.id}.zip",
    )


@router.post(
    "/deliveries/{int:delivery_id}/picks",
    response={200: list[proof.Prediction], 404: Problem, 409: Problem, 422: Problem},
)
def predict_picks(
    request: HttpRequest, delivery_id: int, payload: PicksIn
) -> list[proof.Prediction]:
    """Which file each browser takes from the delivered markup, and why."""
    delivery = _mine(request, delivery_id, looking=True)
    site, texts = runs.site_of_run(delivery), runs.texts_of(delivery)
    if "snippet.html" not in texts:
        raise Refused("Predictions are made for one placement. Export it by itself.", status=409)
    markup = texts["snippet.html"]
    facts = {
        f.name: proof.FileFact(
            width_px=f.rendition.width_px,
            height_px=f.rendition.height_px,
            size_bytes=f.rendition.size_bytes,
        )
        for f in delivery.files.all()
        if f.rendition and not f.left_out
    }
    asked = (
        payload.cases
        if payload.cases is not None
        else proof.cases(site, payload.densities, payload.formats)
    )
    return list(proof.predict(site, markup, facts, asked))


@router.get(
    "/deliveries/{int:delivery_id}/tree/{attempt}/{path:path}",
    response={200: None, 404: Problem},
    include_in_schema=False,
)
def delivered_file(
    request: HttpRequest, delivery_id: int, attempt: str, path: str
) -> HttpResponseBase:
    """The delivered page and its files. `attempt` makes every try's addresses new, so that no cache
    can answer."""
    delivery = _mine(request, delivery_id)
    response: HttpResponseBase
    file = (
        delivery.files.select_related("rendition")
        .filter(name=path, rendition__isnull=False)
        .first()
    )
    if file is not None:
        response = FileResponse(
            default_storage.open(file.rendition.stored), content_type=TYPES[file.rendition.format]
        )
    else:
        text = runs.texts_of(delivery).get(path)
        if text is None:
            raise Http404
        kind = mimetypes.guess_type(path)[0] or "text/plain"
        response = HttpResponse(text, content_type=f"{kind}; charset=utf-8")
    response["Cache-Control"] = "no-store"
    return response
