"""Originals: bring, list, describe, remove, look at."""

from __future__ import annotations

from typing import Annotated, Literal

from config.problems import Problem, Refused
from django.conf import settings
from django.core.files.storage import default_storage
from django.http import FileResponse, HttpRequest
from django.shortcuts import get_object_or_404
from ninja import File, Router, Schema
from ninja.files import UploadedFile
from placements.models import uses_of
from pydantic import Field
from sites.models import site_of
from skypane import model
from skypane.needs import sharp_up_to

from originals.intake import make_preview_again, take_in
from originals.models import Original, preview_url

router = Router()


class OriginalOut(Schema):
    id: int
    name: str
    format: str
    width_px: int
    height_px: int
    size_bytes: int
    alpha: bool
    profile: str
    notes: list[str]
    alt: str | None
    focal: tuple[float, float]
    areas: list[model.Area]
    preview: str
    thumb: str
    used_in: list[str] = []
    sharp_1x: int  # the widest full-width frame in CSS px that it fills sharply
    sharp_2x: int
    too_small: bool  # even at 1x it does not fill the site's widest viewport
    is_new: bool = True


class OriginalChange(Schema):
    """Only what is given is changed. `alt`: "" for decorative on purpose, null for not yet said."""

    alt: Annotated[str, Field(max_length=1000)] | None = None


def out(original: Original, used_in: list[str] | None = None, is_new: bool = True, widest: int | None = None) -> OriginalOut:
    noun = original.as_noun()
    widest = widest or original.site.as_noun().widest
    return OriginalOut(
        id=original.id,
        name=original.name,
        format=original.format,
        width_px=original.width_px,
        height_px=original.height_px,
        size_bytes=original.size_bytes,
        alpha=original.alpha,
        profile=original.profile,
        notes=original.notes,
        alt=original.alt,
        focal=noun.focal,
        areas=list(noun.areas),
        preview=preview_url(original.id, 1600),
        thumb=preview_url(original.id, 480),
        used_in=used_in or [],
        sharp_1x=sharp_up_to(original.width_px, 1),
        sharp_2x=sharp_up_to(original.width_px, 2),
        too_small=sharp_up_to(original.width_px, 1) < widest,
        is_new=is_new,
    )


def _mine(request: HttpRequest, original_id: int) -> Original:
    return get_object_or_404(Original, id=original_id, site__members=request.user)


@router.get("/sites/{int:site_id}/originals", response={200: list[OriginalOut], 404: Problem})
def list_originals(request: HttpRequest, site_id: int) -> list[OriginalOut]:
    site = site_of(request.user, site_id)
    used, widest = uses_of(site), site.as_noun().widest
    return [out(o, used.get(o.id), widest=widest) for o in site.originals.all()]


@router.post("/sites/{int:site_id}/originals", response={201: OriginalOut, 404: Problem, 413: Problem, 422: Problem})
def bring_original(request: HttpRequest, site_id: int, file: File[UploadedFile]) -> tuple[int, OriginalOut]:
    """Bring one picture. A picture that is here already is answered as it is, with `is_new` false."""
    site = site_of(request.user, site_id)
    if (file.size or 0) > settings.MOST_UPLOAD_BYTES:
        raise Refused(
            f"{file.name} has {(file.size or 0) / 1e6:.0f} MB; at most {settings.MOST_UPLOAD_BYTES / 1e6:.0f} MB are taken. "
            "Export it smaller.",
            status=413,
            field="file",
        )
    original, is_new = take_in(site, file)
    return 201, out(original, is_new=is_new)


@router.patch("/originals/{int:original_id}", response={200: OriginalOut, 404: Problem, 422: Problem})
def describe_original(request: HttpRequest, original_id: int, payload: OriginalChange) -> OriginalOut:
    original = _mine(request, original_id)
    if "alt" in payload.model_fields_set:
        original.alt = payload.alt
        original.save(update_fields=["alt"])
    return out(original)


@router.delete("/originals/{int:original_id}", response={204: None, 404: Problem, 409: Problem})
def remove_original(request: HttpRequest, original_id: int) -> tuple[int, None]:
    original = _mine(request, original_id)
    used = uses_of(original.site).get(original.id)
    if used:
        raise Refused(f"{original.name} is used in {', '.join(used)}. Take it out there first.", status=409)
    original.delete()
    return 204, None


@router.get("/originals/{int:original_id}/preview/{int:width}", response={200: None, 404: Problem}, include_in_schema=False)
def preview(request: HttpRequest, original_id: int, width: int) -> FileResponse:
    original = _mine(request, original_id)
    chosen: Literal[480, 1600] = 480 if width <= 480 else 1600
    name = original.preview(chosen)
    if not default_storage.exists(name):
        make_preview_again(original, chosen)
    response = FileResponse(default_storage.open(name), content_type="image/webp")
    response["Cache-Control"] = "private, max-age=31536000, immutable"
    return response
