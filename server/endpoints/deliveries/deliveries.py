"""Deliveries: start, follow, stop, download, and the delivered page as a browser gets it."""

from __future__ import annotations

import mimetypes
from collections.abc import Sequence
from typing import Annotated, Literal

from accounts.session import person
from common.bodies import Body
from common.problems import Problem, Refused
from deliveries import runs, sweeping, told
from deliveries.models import Delivery, Worker
from deliveries.tasks import send
from deliveries.told import ChangesOut, ClearingOut, DeliveryOut, ListedDelivery
from django.core.files.storage import default_storage
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from django.http.response import HttpResponseBase
from ninja import Router, Status
from placements.models import Placement
from pydantic import Field
from sites.access import row_for, site_for
from sites.models import Page
from skypane import model, proof
from skypane.comparing import changes_between
from skypane.errors import InvalidPlan
from skypane.handover import fonts_of
from skypane.identifiers import identifier
from skypane.markup.types import TYPES

router = Router()


class PicksIn(Body):
    """Which browsers are asked about. Without cases: both bounds of every span at each density, in
    both orientations where the picture asks for that."""

    densities: Annotated[list[Annotated[float, Field(gt=0, le=10)]], Field(max_length=8)] = [1, 2]
    formats: proof.Formats = "all"
    cases: Annotated[list[proof.Case], Field(max_length=200)] | None = None
    part: model.PartIndex = 0
    # of the page whose pictures an image service gives out
    service: bool = False


def _mine(request: HttpRequest, delivery_id: int, *, looking: bool | None = None) -> Delivery:
    return row_for(request, told.whole(), "site", delivery_id, looking=looking)


def _begin(
    request: HttpRequest, target: runs.Target, effort: model.Effort = "thorough"
) -> Status[DeliveryOut]:
    delivery, is_new = runs.start(target, person(request), effort)
    if is_new:
        _wake(delivery.id)
    return Status(201, told.out(_mine(request, delivery.id)))


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
    found = told.whole().filter(placement=placement, scope=Delivery.Scope.PLACEMENT)
    found = found.filter(state=Delivery.State.DONE) if state == "done" else found
    delivery = found.first()
    return told.out(delivery) if delivery else None


@router.get("/sites/{int:site_id}/deliveries", response={200: list[ListedDelivery], 404: Problem})
def list_deliveries(request: HttpRequest, site_id: int) -> list[ListedDelivery]:
    """The latest hundred runs of a site."""
    site = site_for(request, site_id)
    found = list(told.whole().filter(site=site).defer("written")[:100])
    any_worker = Worker.is_any()
    return [ListedDelivery(**told.row(d, any_worker), since=told.since(d, found)) for d in found]


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
        before = row_for(request, told.whole(), "site", since)
    else:
        done = told.whole() & delivery.same_target.filter(state=Delivery.State.DONE)
        found = done.filter(id__lt=delivery.id).first()
        if found is None:
            return None
        before = found
    for d in (before, delivery):
        if d.state != Delivery.State.DONE:
            raise Refused("Only finished exports can be compared.", status=409)
    changes = changes_between(told.entries(before), told.entries(delivery))
    return ChangesOut(before=before.id, after=delivery.id, **dict(changes))


@router.get("/sites/{int:site_id}/deliveries/clearing", response={200: ClearingOut, 404: Problem})
def preview_clearing(request: HttpRequest, site_id: int) -> ClearingOut:
    """What clearing would remove. Nothing is changed."""
    return told.clearing_out(sweeping.clearing(site_for(request, site_id)))


@router.post("/sites/{int:site_id}/deliveries/clearing", response={200: ClearingOut, 404: Problem})
def clear_deliveries(request: HttpRequest, site_id: int) -> ClearingOut:
    """Remove it."""
    site = site_for(request, site_id)
    removed = told.clearing_out(sweeping.clearing(site))
    sweeping.clear(site)
    return removed


@router.get("/deliveries/{int:delivery_id}", response={200: DeliveryOut, 404: Problem})
def read_delivery(request: HttpRequest, delivery_id: int) -> DeliveryOut:
    return told.out(_mine(request, delivery_id))


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
    return told.out(_mine(request, delivery_id))


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
    return told.out(_mine(request, delivery_id))


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
    run = runs.delivery_asked(delivery)
    if run.scope != "placement":
        raise Refused("Predictions are made for one placement. Export it by itself.", status=409)
    (placement,) = run.placements
    name = "page-service" if payload.service else "page"
    if f"{name}.html" not in texts:
        raise Refused(
            "This export was made before the site named an image service. Export the placement"
            " again.",
            status=409,
            field="service",
        )
    sheet = texts.get(f"{name}.css", texts["picture.css"])
    try:
        shown = proof.delivered(
            texts[f"{name}.html"], sheet, proof.element_of(placement, payload.part)
        )
    except InvalidPlan as late:
        raise Refused(str(late), status=409, field="part") from None
    facts = {
        f.name: proof.FileFact(
            width_px=f.rendition.width_px,
            height_px=f.rendition.height_px,
            size_bytes=f.rendition.size_bytes,
        )
        for f in delivery.files.all()
        if f.rendition and not f.left_out
    }
    asked: Sequence[proof.Case]
    if payload.cases is not None:
        asked = payload.cases
    else:
        turned = shown.asks_for_orientation
        asked = proof.cases(site, payload.densities, payload.formats, turned=turned)
    return list(proof.predict(site, shown, facts, asked))


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
    made = file.rendition if file else None
    if made is not None:
        response = FileResponse(default_storage.open(made.stored), content_type=TYPES[made.format])
    else:
        texts = runs.texts_of(delivery)
        font = fonts_of(texts).get(path)
        if font is None and path not in texts:
            raise Http404
        kind = mimetypes.guess_type(path)[0] or "text/plain"
        response = (
            FileResponse(font.open("rb"), content_type="font/woff2")
            if font is not None
            else HttpResponse(texts[path], content_type=f"{kind}; charset=utf-8")
        )
    response["Cache-Control"] = "no-store"
    return response
