"""A delivered file beside what it is held against: the lossless resample, and where they differ."""

from __future__ import annotations

from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path

from common.files import local, work_folder
from common.pictures import guard
from common.problems import Problem, Refused
from deliveries import runs
from deliveries.models import Delivery
from django.core.files.storage import default_storage
from django.http import FileResponse, Http404, HttpRequest, HttpResponse
from ninja import Router
from sites.access import row_for
from skypane import model
from skypane.markup.types import TYPES

router = Router()


@contextmanager
def _resampled(delivery: Delivery, key: str) -> Iterator[tuple[Path, Path, str]]:
    """The resample that a file of a run is held against, a folder for more, and the name of the
    original."""
    said = next((f for f in runs.written_of(delivery)["files"] if f["key"] == key), None)
    if said is None:
        raise Http404
    rendition = model.Rendition.model_validate(said)
    original = runs.original_asked(delivery, rendition.original)
    if original is None:
        raise Refused(
            "The original of this file has been removed or replaced, so there is nothing to compare"
            " it with.",
            status=409,
        )
    if rendition.format == "svg":
        raise Refused("A drawing loses nothing: there is nothing to compare.", status=409)
    size = rendition.width_px, rendition.height_px
    with local(original.stored) as source, work_folder() as folder:
        target = folder / "resample.png"
        guard().resample(source, rendition.crop, size, target, original.name)
        yield target, folder, original.name


def _mine(request: HttpRequest, delivery_id: int) -> Delivery:
    return row_for(request, Delivery.objects.all(), "site", delivery_id)


def _png(path: Path) -> HttpResponse:
    response = HttpResponse(path.read_bytes(), content_type="image/png")
    response["Cache-Control"] = "private, max-age=3600"
    return response


@router.get(
    "/deliveries/{int:delivery_id}/resample/{key}",
    response={200: None, 404: Problem, 409: Problem},
)
def resample(request: HttpRequest, delivery_id: int, key: str) -> HttpResponse:
    """The lossless resample that a file is held against, as PNG. The original's cut at its px."""
    with _resampled(_mine(request, delivery_id), key) as (path, _, _):
        return _png(path)


@router.get(
    "/deliveries/{int:delivery_id}/difference/{key}",
    response={200: None, 404: Problem, 409: Problem},
)
def difference(request: HttpRequest, delivery_id: int, key: str) -> HttpResponse:
    """Where a file differs from the resample: a transparent PNG of its size, opaque where nothing
    is alike. The header `X-SSIM` says the mean."""
    delivery = _mine(request, delivery_id)
    file = delivery.files.select_related("rendition").filter(key=key).first()
    if file is None or file.rendition is None:
        raise Http404
    with (
        _resampled(delivery, key) as (path, folder, name),
        local(file.rendition.stored) as stored,
    ):
        target = folder / "difference.png"
        ssim = guard().difference(path, stored, target, name)
        response = _png(target)
    response["X-SSIM"] = f"{ssim:.5f}"
    return response


@router.get("/deliveries/{int:delivery_id}/renditions/{key}", response={200: None, 404: Problem})
def rendition(request: HttpRequest, delivery_id: int, key: str) -> FileResponse:
    """A made file of a run by its key, those too that are not handed over."""
    file = _mine(request, delivery_id).files.select_related("rendition").filter(key=key).first()
    if file is None or file.rendition is None:
        raise Http404
    kind = TYPES[file.rendition.format]
    response = FileResponse(default_storage.open(file.rendition.stored), content_type=kind)
    response["Cache-Control"] = "private, max-age=3600"
    return response
