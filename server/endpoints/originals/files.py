"""The file of an original: exchanged for a better one, trimmed, looked at, and what it seems to
show."""

from __future__ import annotations

from typing import Any

from common.files import local
from common.pictures import guard
from common.problems import Problem, Refused
from common.uploads import most_upload_bytes, takes_file
from django.core.files.storage import default_storage
from django.db import IntegrityError
from django.http import FileResponse, HttpRequest, HttpResponse
from ninja import File, Router, Schema
from ninja.files import UploadedFile
from originals.intake import (
    LARGE_WIDTH,
    PREVIEW_WIDTHS,
    clean_name,
    crop_preview,
    make_preview_again,
    received,
    replaced_by,
    trimmed,
    untrimmed,
)
from originals.models import Original
from placements.models import failing_areas, uses_of
from pydantic import ValidationError
from skypane import after_replacing, has_same_ratio, model, no_longer_fits

from endpoints.originals.originals import OriginalOut, changed, mine, out, small_enough

router = Router()


class ReplacedOut(Schema):
    original: OriginalOut
    said: list[str]


class SuggestionOut(Schema):
    """What may stand out in the picture; nothing is changed by asking."""

    focal: tuple[float, float]
    areas: list[model.Rect]


@router.post(
    takes_file("/originals/{int:original_id}/replacement", most_upload_bytes),
    response={200: ReplacedOut, 404: Problem, 409: Problem, 413: Problem, 422: Problem},
)
def replace_original(
    request: HttpRequest, original_id: int, file: File[UploadedFile], all_the_same: bool = False
) -> ReplacedOut:
    """Give an original a better file of the same picture; areas and treatments stay.

    A file of another ratio is refused with 409 and what would no longer fit, unless `all_the_same`
    is said.
    """
    original = mine(request, original_id)
    small_enough(file)
    used, failing = uses_of(original.site).get(original.id, []), failing_areas(original.site)
    with received(file) as (path, sha256):
        if (
            Original.objects.filter(site=original.site, sha256=sha256)
            .exclude(id=original.id)
            .exists()
        ):
            raise Refused(
                "This file is in the site already, as another original. Choose that one where you"
                " need it."
            )
        facts = replaced_by(original, path, clean_name(file.name or ""), sha256)
    before: list[model.Original] = []

    def anew(row: Original) -> dict[str, Any]:
        was = row.as_noun()
        will_be = was.model_copy(update={f: facts[f] for f in ("name", "width_px", "height_px")})
        if not has_same_ratio(was, will_be) and not all_the_same:
            raise Refused(no_longer_fits(was, will_be, used), status=409, field="all_the_same")
        before[:] = [was]
        return facts

    try:
        original = changed(request, original_id, anew)
    except IntegrityError:
        raise Refused("This file has just come in as another original. Choose that one.") from None
    return ReplacedOut(
        original=out(original, used),
        said=after_replacing(before[0], original.as_noun(), failing, failing_areas(original.site)),
    )


@router.post(
    "/originals/{int:original_id}/trim",
    response={200: OriginalOut, 404: Problem, 409: Problem, 422: Problem},
)
def trim_original(request: HttpRequest, original_id: int) -> OriginalOut:
    """Cut transparent edges away, to an even size. The untouched file is kept."""
    original = mine(request, original_id)
    if original.untouched is not None:
        raise Refused("It is trimmed already.", status=409)
    facts, moved = trimmed(original)

    def cut(row: Original) -> dict[str, Any]:
        if row.sha256 != original.sha256:
            raise Refused("Its file has been changed meanwhile. Look at it again.", status=409)
        return {**facts, **moved(row)}

    try:
        original = changed(request, original_id, cut)
    except IntegrityError:
        raise Refused(
            "The trimmed picture is in the site already, as another original.", status=422
        ) from None
    return out(original, uses_of(original.site).get(original.id))


@router.delete(
    "/originals/{int:original_id}/trim", response={200: OriginalOut, 404: Problem, 409: Problem}
)
def untrim_original(request: HttpRequest, original_id: int) -> OriginalOut:
    def back(row: Original) -> dict[str, Any]:
        if row.untouched is None:
            raise Refused("It is not trimmed.", status=409)
        return untrimmed(row)

    try:
        original = changed(request, original_id, back)
    except IntegrityError:
        raise Refused(
            "The untouched picture is in the site already, as another original.", status=409
        ) from None
    return out(original, uses_of(original.site).get(original.id))


@router.get("/originals/{int:original_id}/suggestion", response={200: SuggestionOut, 404: Problem})
def suggest_for_original(request: HttpRequest, original_id: int) -> SuggestionOut:
    original = mine(request, original_id)
    name = original.preview(480)
    if not default_storage.exists(name):
        make_preview_again(original, 480)
    with local(name) as path:
        found = guard().suggest(path)
    return SuggestionOut(focal=found.focal, areas=list(found.areas))


def _crop_asked(text: str) -> model.Rect | None:
    if not text:
        return None
    try:
        x, y, w, h = (float(v) for v in text.split(","))
        return model.Rect(x=x, y=y, w=w, h=h)
    except (ValueError, ValidationError):
        raise Refused(
            "A crop is four fractions: x,y,w,h inside the picture.", field="crop"
        ) from None


@router.get(
    "/originals/{int:original_id}/preview/{int:width}",
    response={200: None, 404: Problem},
    include_in_schema=False,
)
def preview(
    request: HttpRequest, original_id: int, width: int, crop: str = ""
) -> HttpResponse | FileResponse:
    original = mine(request, original_id)
    chosen = next((w for w in PREVIEW_WIDTHS if width <= w), LARGE_WIDTH)
    rect = _crop_asked(crop)
    response: HttpResponse | FileResponse
    if rect is not None:
        response = HttpResponse(crop_preview(original, chosen, rect), content_type="image/webp")
    else:
        name = original.preview(chosen)
        if not default_storage.exists(name):
            make_preview_again(original, chosen)
        response = FileResponse(default_storage.open(name), content_type="image/webp")
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    return response
