"""Originals: bring, list, describe, mark, remove. Most of it looks at the placements that use an
original."""

from __future__ import annotations

from collections.abc import Callable
from typing import Annotated, Any

from accounts.session import person
from common.bodies import Body
from common.db import in_one_go, locked, locked_one
from common.problems import Conflict, Problem, Refused
from common.uploads import most_upload_bytes, takes_file
from django.conf import settings
from django.http import Http404, HttpRequest, HttpResponse
from ninja import File, Query, Router, Schema, Status
from ninja.files import UploadedFile
from originals.intake import (
    LARGE_WIDTH,
    take_in,
    take_over,
)
from originals.looks import Look
from originals.models import Original, preview_url, when_of
from placements.history import lock_for_looks, look_anew
from placements.models import uses_of
from pydantic import Field, StringConstraints, TypeAdapter
from sites.access import row_for, site_for
from sites.models import Site
from skypane import model
from skypane.files.renditions import sharp_up_to

router = Router()

Alt = Annotated[str, Field(max_length=1000)] | None
Tag = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=40)]
Tags = Annotated[list[Tag], Field(max_length=20)]
Ids = Annotated[list[int], Field(min_length=1, max_length=2000)]


class LookChange(Look):
    """`revision` is the one that the change started from."""

    revision: int


class OriginalOut(Schema):
    id: int
    revision: int
    name: str
    format: str
    width_px: int
    height_px: int
    size_bytes: int
    alpha: bool
    profile: str
    notes: list[str]
    alt: str | None
    tags: list[str]
    focal: tuple[float, float]
    areas: list[model.Area]
    large: str  # addresses of previews at most 3200, 1600 and 480 px wide
    preview: str
    thumb: str
    used_in: list[str]
    sharp_1x: int  # the widest full-width frame in CSS px that it fills sharply
    sharp_2x: int
    too_small: bool  # even at 1x it does not fill the site's widest viewport
    trimmed: bool
    # the original that this one is a version of, and under which conditions it shows in its place
    version_of: int | None
    version_when: list[model.Feature]
    is_new: bool


#: Fields that say what the row says.
SAME = (
    *("id", "revision", "name", "format", "width_px", "height_px", "size_bytes"),
    *("alpha", "profile", "notes", "alt", "tags"),
)
_MANY = TypeAdapter(list[OriginalOut])


class IsVersionOf(Body):
    """Of which other original this one is a version, and under which conditions it shows in its
    place."""

    of: model.Id
    when: Annotated[model.When, Field(min_length=1)]


class OriginalChange(Body):
    """Only what is given is changed. `alt`: "" for decorative on purpose, null for not yet said.
    `version`: null for one that stands for itself."""

    alt: Alt = None
    tags: Tags | None = None
    version: IsVersionOf | None = None


class OriginalsChange(Body):
    """Several at once. Only what is given is changed; tags are added to and taken from those that
    are there."""

    ids: Ids
    alt: Alt = None
    add_tags: Tags = []
    drop_tags: Tags = []


class OriginalsRemoval(Body):
    ids: Ids


class RemovalOut(Schema):
    """What became of each: removed, or where it is still used."""

    id: int
    name: str
    removed: bool
    used_in: list[str]


def _facts(original: Any, used_in: list[str] | None, is_new: bool, widest: int) -> dict[str, Any]:
    """What OriginalOut says, already of the right types; from a row or from the named columns of
    one."""
    return {
        **{f: getattr(original, f) for f in SAME},
        "focal": (original.focal_x, original.focal_y),
        "areas": [model.Area.model_validate(a) for a in original.areas],
        "large": preview_url(original.id, LARGE_WIDTH, original.sha256),
        "preview": preview_url(original.id, 1600, original.sha256),
        "thumb": preview_url(original.id, 480, original.sha256),
        "used_in": used_in or [],
        "sharp_1x": sharp_up_to(original.width_px, 1),
        "sharp_2x": sharp_up_to(original.width_px, 2),
        "too_small": sharp_up_to(original.width_px, 1) < widest,
        "trimmed": original.untouched is not None,
        "version_of": original.version_of_id,
        "version_when": list(when_of(original.version_when)),
        "is_new": is_new,
    }


def out(
    original: Original,
    used_in: list[str] | None = None,
    is_new: bool = True,
    widest: int | None = None,
) -> OriginalOut:
    return OriginalOut(
        **_facts(original, used_in, is_new, widest or original.site.as_noun().widest)
    )


def mine(request: HttpRequest, original_id: int) -> Original:
    return row_for(request, Original.objects.select_related("site"), "site", original_id)


def changed(
    request: HttpRequest, original_id: int, values: Callable[[Original], dict[str, Any]]
) -> Original:
    """The row with new values, which are worked out of the row as it is under a lock; nothing else
    of it is written."""

    def change() -> Original:
        mine(request, original_id)
        original = locked_one(Original, original_id)
        take_over(original, values(original))
        return original

    return in_one_go(change)


def _several(site: Site, ids: list[int]) -> list[Original]:
    found = list(site.originals.filter(id__in=ids))
    if len(found) < len(set(ids)):
        raise Refused(
            "Some of these originals are no longer in this site. Look at the list again.",
            status=404,
        )
    return found


@router.get("/sites/{int:site_id}/originals", response={200: list[OriginalOut], 404: Problem})
def list_originals(
    request: HttpRequest,
    site_id: int,
    skip: Annotated[int, Query(ge=0, le=1_000_000)] = 0,
    most: Annotated[int | None, Query(ge=1, le=1000)] = None,
) -> HttpResponse:
    """The newest first; all, or `most` of them after so many that are skipped. A site may have
    thousands: what comes from our own rows is not checked once more."""
    site = site_for(request, site_id)
    used, widest = uses_of(site), site.as_noun().widest
    columns = site.originals.values_list(
        *SAME,
        "sha256",
        "focal_x",
        "focal_y",
        "areas",
        "untouched",
        "version_of_id",
        "version_when",
        named=True,
    )[skip : None if most is None else skip + most]
    rows = [OriginalOut.model_construct(**_facts(o, used.get(o.id), True, widest)) for o in columns]
    return HttpResponse(_MANY.dump_json(rows), content_type="application/json")


def small_enough(file: UploadedFile) -> None:
    if (file.size or 0) > settings.MOST_UPLOAD_BYTES:
        raise Refused(
            f"{file.name} has {(file.size or 0) / 1e6:.0f} MB; at most"
            f" {settings.MOST_UPLOAD_BYTES / 1e6:.0f} MB are taken. Export it smaller.",
            status=413,
            field="file",
        )


@router.post(
    takes_file("/sites/{int:site_id}/originals", most_upload_bytes),
    response={201: OriginalOut, 404: Problem, 413: Problem, 422: Problem},
)
def bring_original(
    request: HttpRequest, site_id: int, file: File[UploadedFile]
) -> Status[OriginalOut]:
    """Bring one picture. A picture that is here already is answered as it is, with `is_new`
    false."""
    site = site_for(request, site_id)
    small_enough(file)
    original, is_new = take_in(site, file)
    return Status(201, out(original, is_new=is_new))


@router.patch(
    "/sites/{int:site_id}/originals", response={200: list[OriginalOut], 404: Problem, 422: Problem}
)
def describe_originals(
    request: HttpRequest, site_id: int, payload: OriginalsChange
) -> list[OriginalOut]:
    site = site_for(request, site_id)

    def describe() -> list[Original]:
        _several(site, payload.ids)
        originals = list(locked(Original, payload.ids).values())
        for original in originals:
            values: dict[str, Any] = (
                {"alt": payload.alt} if "alt" in payload.model_fields_set else {}
            )
            if payload.add_tags or payload.drop_tags:
                kept = [t for t in original.tags if t not in payload.drop_tags]
                values["tags"] = list(dict.fromkeys([*kept, *payload.add_tags]))[:20]
            take_over(original, values)
        return originals

    originals = in_one_go(describe)
    used, widest = uses_of(site), site.as_noun().widest
    return [out(o, used.get(o.id), widest=widest) for o in originals]


@router.post(
    "/sites/{int:site_id}/originals/removal",
    response={200: list[RemovalOut], 404: Problem, 422: Problem},
)
def remove_originals(
    request: HttpRequest, site_id: int, payload: OriginalsRemoval
) -> list[RemovalOut]:
    """Remove those that are used nowhere; of the others it is said where they are."""
    site = site_for(request, site_id)

    def remove() -> list[RemovalOut]:
        outcome = []
        _several(site, payload.ids)
        rows = locked(Original, payload.ids)
        used = uses_of(site)
        for original in rows.values():
            where = used.get(original.id, [])
            outcome.append(
                RemovalOut(id=original.id, name=original.name, removed=not where, used_in=where)
            )
            if not where:
                original.delete()
        return outcome

    return in_one_go(remove)


@router.patch(
    "/originals/{int:original_id}", response={200: OriginalOut, 404: Problem, 422: Problem}
)
def describe_original(
    request: HttpRequest, original_id: int, payload: OriginalChange
) -> OriginalOut:
    values: dict[str, Any] = {"alt": payload.alt} if "alt" in payload.model_fields_set else {}
    if payload.tags is not None:
        values["tags"] = list(dict.fromkeys(payload.tags))

    def told(row: Original) -> dict[str, Any]:
        if "version" not in payload.model_fields_set:
            return values
        return values | _version(row, payload.version)

    original = changed(request, original_id, told)
    return out(original, uses_of(original.site).get(original.id))


def _version(row: Original, said: IsVersionOf | None) -> dict[str, Any]:
    """What a row says of what it is a version of. Raises Refused."""
    if said is None:
        return {"version_of_id": None, "version_when": ""}
    field = "version.of"
    other = Original.objects.filter(site_id=row.site_id, id=said.of).first()
    if other is None:
        raise Refused("That original is no longer in this site.", status=404, field=field)
    if other.id == row.id:
        raise Refused("A picture is no version of itself. Choose another.", field=field)
    if other.version_of_id is not None:
        raise Refused(
            f"{other.name} is a version itself. Choose the one that usually shows.", field=field
        )
    if row.versions.exists():
        raise Refused(
            f"Others are versions of {row.name}. Let them stand for themselves first.", field=field
        )
    return {"version_of_id": other.id, "version_when": ",".join(said.when)}


@router.put(
    "/originals/{int:original_id}/look",
    response={200: OriginalOut, 404: Problem, 409: Problem, 422: Problem},
)
def look_at_original(request: HttpRequest, original_id: int, payload: LookChange) -> OriginalOut:
    """Move the focal point and the areas; spans that name an area follow when it is called
    otherwise.

    A newer revision answers 409 with both and changes nothing.
    """

    def look() -> Original:
        site = mine(request, original_id).site
        originals, rows = lock_for_looks(site, {original_id: payload})
        original = originals.get(original_id)
        if original is None:
            raise Http404
        if original.revision != payload.revision:
            raise Conflict(
                "Its areas were changed elsewhere since you opened it.",
                out(original).model_dump(mode="json"),
            )
        look_anew(original, payload.focal, payload.areas, person(request), rows.values())
        return original

    original = in_one_go(look)
    return out(original, uses_of(original.site).get(original.id))


@router.delete("/originals/{int:original_id}", response={204: None, 404: Problem, 409: Problem})
def remove_original(request: HttpRequest, original_id: int) -> Status[None]:
    asked = mine(request, original_id)

    def remove() -> None:
        # whoever takes it into a placement at this moment waits, and finds it gone
        original = locked_one(Original, asked.id)
        used = uses_of(original.site).get(original.id)
        if used:
            raise Refused(
                f"{original.name} is used in {', '.join(used)}. Take it out there first.",
                status=409,
            )
        original.delete()

    in_one_go(remove)
    return Status(204, None)
