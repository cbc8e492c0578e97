"""Deliveries: start, follow, stop, download, and the delivered page as a browser gets it."""

from __future__ import annotations

import datetime
import mimetypes
from collections.abc import Mapping
from typing import Annotated, Any, Literal

from config.bodies import Body
from config.problems import Problem, Refused
from django.core.files.storage import default_storage
from django.db.models import QuerySet
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from django.utils import timezone
from ninja import Router, Schema, Status
from originals.models import preview_url
from placements.models import Placement
from placements.strips import THUMB_PX
from pydantic import Field
from sites.access import row_for, site_for
from skypane import proof
from skypane.identifiers import identifier
from skypane.markup.picture import TYPES

from deliveries import runs
from deliveries.models import SILENT_AFTER, Delivery, Worker
from deliveries.tasks import send

router = Router()
State = Literal["queued", "running", "stopping", "stopped", "done", "failed"]


class FileOut(Schema):
    name: str
    key: str
    done: bool
    reused: bool
    width_px: int | None
    height_px: int | None
    size_bytes: int | None


class DeliveryRow(Schema):
    id: int
    placement_id: int
    name: str
    page: str
    by: str  # who started it; "" where that person is gone
    what: str  # which spans, densities and formats it is for
    thumbs: list[str]  # of the originals that it shows
    state: State
    total: int
    done: int
    reused: int
    size_bytes: int
    message: str
    waits_for: str  # why an open run does not go on, as a sentence; "" while it does
    created: datetime.datetime
    finished: datetime.datetime | None


class DeliveryOut(DeliveryRow):
    current: str
    files: list[FileOut]
    is_current: bool  # of a finished run: whether the placement still asks for exactly these files


class PicksIn(Body):
    """Which browsers are asked about. Without cases: both bounds of every span at each density."""

    densities: Annotated[list[Annotated[float, Field(gt=0, le=10)]], Field(max_length=8)] = [1, 2]
    formats: proof.Formats = "all"
    cases: Annotated[list[proof.Case], Field(max_length=200)] | None = None


def _mine(request: HttpRequest, delivery_id: int, *, looking: bool | None = None) -> Delivery:
    return row_for(request, _whole(), "placement__page__site", delivery_id, looking=looking)


def _whole() -> QuerySet[Delivery]:
    """Runs with what is said of them, in as many queries for one as for a hundred."""
    return Delivery.objects.select_related("placement__page__site", "by").prefetch_related(
        "files__rendition"
    )


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
    return {
        "id": delivery.id,
        "placement_id": delivery.placement_id,
        "name": delivery.asked["placement"]["name"],
        "page": delivery.placement.page.title,
        "by": delivery.by.get_username() if delivery.by else "",
        "what": _what_for(delivery.asked["site"]),
        "thumbs": [
            preview_url(o["id"], THUMB_PX, o["sha256"]) for o in delivery.asked["originals"]
        ],
        "state": delivery.state,
        "total": len(files),
        "done": sum(f.rendition is not None for f in files),
        "reused": sum(f.reused for f in files),
        "size_bytes": sum(f.rendition.size_bytes for f in files if f.rendition),
        "message": delivery.message,
        "waits_for": _waits_for(delivery, any_worker),
        "created": delivery.created,
        "finished": delivery.finished,
    }


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
                width_px=f.rendition and f.rendition.width_px,
                height_px=f.rendition and f.rendition.height_px,
                size_bytes=f.rendition and f.rendition.size_bytes,
            )
            for f in delivery.files.all()
        ],
        is_current=done and runs.is_current(delivery),
    )


@router.post(
    "/placements/{int:placement_id}/deliveries",
    response={201: DeliveryOut, 404: Problem, 422: Problem},
)
def start_delivery(request: HttpRequest, placement_id: int) -> Status[DeliveryOut]:
    """Export a placement as it is saved. A run of it that is still open is answered instead of a
    second one."""
    row_for(request, Placement.objects.all(), "page__site", placement_id)
    delivery, is_new = runs.start(placement_id, request.user)
    if is_new and not send(delivery.id):
        message = "The queue cannot be reached: the export begins when it is back."
        Delivery.objects.filter(id=delivery.id, state=Delivery.State.QUEUED).update(message=message)
    return Status(201, _out(_mine(request, delivery.id)))


@router.get(
    "/placements/{int:placement_id}/deliveries/latest",
    response={200: DeliveryOut | None, 404: Problem},
)
def latest_delivery(
    request: HttpRequest, placement_id: int, state: Literal["any", "done"] = "any"
) -> DeliveryOut | None:
    placement = row_for(request, Placement.objects.all(), "page__site", placement_id)
    found = _whole().filter(placement=placement)
    found = found.filter(state=Delivery.State.DONE) if state == "done" else found
    delivery = found.first()
    return _out(delivery) if delivery else None


@router.get("/sites/{int:site_id}/deliveries", response={200: list[DeliveryRow], 404: Problem})
def list_deliveries(request: HttpRequest, site_id: int) -> list[DeliveryRow]:
    """The latest hundred runs of a site."""
    site = site_for(request, site_id)
    found = _whole().filter(placement__page__site=site).defer("written")[:100]
    any_worker = Worker.is_any()
    return [DeliveryRow(**_row(d, any_worker)) for d in found]  # type: ignore[arg-type]


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
        filename=f"{identifier(delivery.asked['placement']['name'])}-{delivery.id}.zip",
    )


@router.post(
    "/deliveries/{int:delivery_id}/picks",
    response={200: list[proof.Prediction], 404: Problem, 422: Problem},
)
def predict_picks(
    request: HttpRequest, delivery_id: int, payload: PicksIn
) -> list[proof.Prediction]:
    """Which file each browser takes from the delivered markup, and why."""
    delivery = _mine(request, delivery_id, looking=True)
    site, markup = runs.site_of_run(delivery), runs.texts_of(delivery)["snippet.html"]
    facts = {
        f.name: proof.FileFact(
            width_px=f.rendition.width_px,
            height_px=f.rendition.height_px,
            size_bytes=f.rendition.size_bytes,
        )
        for f in delivery.files.all()
        if f.rendition
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
