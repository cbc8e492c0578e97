"""Taking a picture in: its bytes are read, refused with a sentence or kept by their hash, and
previews are made."""

from __future__ import annotations

import hashlib
import unicodedata
from collections.abc import Callable, Iterable, Iterator, Mapping
from contextlib import contextmanager
from pathlib import Path
from typing import Any

from common.files import keep, local, sha256_of, work_folder
from common.pictures import guard
from django.core.files.storage import default_storage
from django.core.files.uploadedfile import UploadedFile
from django.db import IntegrityError, transaction
from sites.models import Site
from skypane import model
from skypane.errors import UnreadablePicture
from skypane.pixels.inspect import Inspected

from originals.models import Original

PREVIEW_WIDTHS = (480, 1600)

#: For work on the map of a large picture; made when it is first asked for.
LARGE_WIDTH = 3200

#: What is known of the file itself, as it was before it was trimmed.
UNTOUCHED = ("sha256", "format", "width_px", "height_px", "size_bytes", "alpha", "profile", "notes")


def clean_name(name: str) -> str:
    """A name that is safe to show and to store: no path, no control characters, at most 120
    characters with its suffix."""
    plain = unicodedata.normalize("NFC", name.replace("\\", "/").rpartition("/")[2])
    plain = "".join(c for c in plain if c.isprintable()).strip(" .") or "picture"
    stem, dot, suffix = plain.rpartition(".")
    if not dot or len(suffix) > 8:
        return plain[:120]
    return f"{stem[: 119 - len(suffix)]}.{suffix}"


@contextmanager
def received(upload: UploadedFile[bytes]) -> Iterator[tuple[Path, str]]:
    """The upload as a file, and the SHA-256 of its bytes."""
    with work_folder() as folder:
        path = folder / "upload"
        digest = hashlib.sha256()
        with path.open("wb") as f:
            for chunk in upload.chunks():
                digest.update(chunk)
                f.write(chunk)
        yield path, digest.hexdigest()


def take_in(site: Site, upload: UploadedFile[bytes]) -> tuple[Original, bool]:
    """The original made of an upload, and whether it is new. Raises UnreadablePicture; then nothing
    is kept."""
    with received(upload) as (path, sha256):
        return take_in_path(site, path, clean_name(upload.name or ""), sha256)


def take_in_path(site: Site, path: Path, name: str, sha256: str) -> tuple[Original, bool]:
    existing = Original.objects.filter(site=site, sha256=sha256).first()
    if existing:
        keep(path, existing.stored)  # whatever has become of the stored file, this is it
        return existing, False
    original = opened(path, name, sha256)
    original.site = site
    try:
        with transaction.atomic():
            original.save()
    except IntegrityError:  # the same picture came twice at once
        return Original.objects.get(site=site, sha256=sha256), False
    return original, True


def opened(path: Path, name: str, sha256: str) -> Original:
    """An original of no site yet, whose files are kept. Raises UnreadablePicture."""
    found = guard().inspect(path, name)
    original = Original(name=name, **_facts(found, sha256))
    _look(original, path)
    _store(original, path)
    return original


def _look(original: Original, path: Path) -> None:
    """Focal point and areas that the picture brings along in its metadata."""
    found = guard().regions(path, original.name)
    if found.focal is not None:
        original.focal_x, original.focal_y = found.focal
    original.areas = [a.model_dump(mode="json") for a in found.areas]
    brought = [f"{len(found.areas)} keep area{'' if len(found.areas) == 1 else 's'}"]
    brought = (brought if found.areas else []) + (["its focal point"] if found.focal else [])
    if brought:
        original.notes.append(f"It brings {' and '.join(brought)} along in its metadata.")
    original.notes += found.notes


def _facts(found: Inspected, sha256: str) -> dict[str, Any]:
    return {
        "sha256": sha256,
        "format": found.format,
        "width_px": found.width_px,
        "height_px": found.height_px,
        "size_bytes": found.size_bytes,
        "alpha": found.alpha,
        "flat": found.flat,
        "frames": found.frames,
        "tiny": found.tiny,
        "drawing": found.drawing,
        "profile": found.profile[:200],
        "notes": list(found.notes),
    }


def _store(original: Original, path: Path) -> None:
    keep(path, original.stored)
    # of the same bytes in another site they are there
    made = {
        w: path.with_name(f"preview-{original.sha256[:8]}-{w}.webp")
        for w in PREVIEW_WIDTHS
        if not default_storage.exists(original.preview(w))
    }
    if made:
        guard().previews(path, made, name=original.name)
    for width, file in made.items():
        keep(file, original.preview(width))


def make_preview_again(original: Original, width_px: int) -> None:
    """For the large preview, and for those that were lost with a cache: they can always be made
    from the original."""
    with local(original.stored) as source, work_folder() as folder:
        made = folder / "preview.webp"
        guard().previews(source, {width_px: made}, name=original.name)
        keep(made, original.preview(width_px))


def look_for_tiny(site: Site, ids: Iterable[int]) -> None:
    """Make up for those of a site's originals of which nobody has made a tiny picture yet: they
    came before there were any."""
    rows = Original.objects.filter(site=site, id__in=set(ids), tiny__isnull=True, alpha=False)
    for row in rows.exclude(format="svg"):
        preview = row.preview(PREVIEW_WIDTHS[0])
        source = preview if default_storage.exists(preview) else row.stored
        try:
            with local(source) as path:
                tiny = guard().tiny(path, name=row.name).model_dump()
        except (OSError, UnreadablePicture):
            continue  # what needs its bytes says that they are lost
        # other bytes may have come for it since
        Original.objects.filter(id=row.id, sha256=row.sha256).update(tiny=tiny)


def look_for_drawings(found: Mapping[int, model.Original]) -> bool:
    """Make up for small drawings that came before anybody looked what they are drawn with; whether
    there were any."""
    ids = [o.id for o in found.values() if o.medium == "drawing" and o.drawing is None]
    for row in Original.objects.filter(id__in=ids):
        try:
            with local(row.stored) as path:
                drawing = guard().drawing(path, (row.width_px, row.height_px))
        except OSError:
            continue  # what needs its bytes says that they are lost
        Original.objects.filter(id=row.id, sha256=row.sha256).update(drawing=drawing)
    return bool(ids)


def crop_preview(original: Original, width_px: int, crop: model.Rect) -> bytes:
    """A preview of a crop. From the preview of the whole where that has px enough, which is much
    faster."""
    name = original.preview(PREVIEW_WIDTHS[-1])
    if crop.w < 0.5 or not default_storage.exists(name):
        name = original.stored
    with local(name) as source, work_folder() as folder:
        made = folder / "crop.webp"
        guard().previews(source, {width_px: made}, crop, name=original.name)
        return made.read_bytes()


# -- other bytes for an original that is here ------------------------------------------


#: What a row says of its file, and what changes with it.
OF_FILE = (*UNTOUCHED, "untouched", "flat", "frames", "tiny", "drawing")


def replaced_by(original: Original, path: Path, name: str, sha256: str) -> dict[str, Any]:
    """What an original's row has to say of better bytes for it, which are stored; the row itself is
    left as it is. Raises UnreadablePicture."""
    found = guard().inspect(path, name)
    facts = {"name": name, "untouched": None, **_facts(found, sha256)}
    _store(Original(site_id=original.site_id, **facts), path)
    return facts


def take_over(original: Original, values: dict[str, Any]) -> None:
    """Write these values, and nothing else, to a row that is locked. Raises IntegrityError where
    the content is there already."""
    for field, value in values.items():
        setattr(original, field, value)
    original.save(update_fields=list(values))


Moved = dict[str, Any]


def trimmed(original: Original) -> tuple[dict[str, Any], Callable[[Original], Moved]]:
    """What a row says once transparent edges are cut away, the file being stored; and what then
    becomes of the focal point and areas of a row. The untouched file is kept. Raises
    InvalidPlan."""
    with local(original.stored) as source, work_folder() as folder:
        box = guard().visible_box(source)
        path = folder / "trimmed.png"
        guard().write_trimmed(source, box, path)
        found, sha256 = guard().inspect(path, "trimmed.png"), sha256_of(path)
        before = {f: getattr(original, f) for f in UNTOUCHED} | {"box": box.model_dump()}
        x, y = box.x / original.width_px, box.y / original.height_px
        w, h = found.width_px / original.width_px, found.height_px / original.height_px
        notes = [f"Transparent edges trimmed from {before['width_px']} × {before['height_px']} px."]
        facts = {**_facts(found, sha256), "notes": notes, "untouched": before}
        _store(Original(site_id=original.site_id, name=original.name, **facts), path)
    return facts, lambda row: _carried(row, lambda fx, fy: ((fx - x) / w, (fy - y) / h))


def untrimmed(original: Original) -> dict[str, Any]:
    """What a trimmed row says once its untouched file has its place again, focal point and areas
    included."""
    before = dict(original.untouched or {})
    box = before.pop("box")
    x, y = box["x"] / before["width_px"], box["y"] / before["height_px"]
    w, h = original.width_px / before["width_px"], original.height_px / before["height_px"]
    return {
        **before,
        "untouched": None,
        **_carried(original, lambda fx, fy: (x + fx * w, y + fy * h)),
    }


def _carried(original: Original, at: Callable[[float, float], tuple[float, float]]) -> Moved:
    """Focal point and areas moved with the picture; an area that would be left outside goes."""

    def inside(value: float) -> float:
        return round(min(1.0, max(0.0, value)), 5)

    fx, fy = at(original.focal_x, original.focal_y)
    areas = []
    for area in original.as_noun().areas:
        x0, y0 = at(area.rect.x, area.rect.y)
        x1, y1 = at(area.rect.x + area.rect.w, area.rect.y + area.rect.h)
        x0, y0, x1, y1 = inside(x0), inside(y0), inside(x1), inside(y1)
        if x1 - x0 >= model.LEAST_SHARE and y1 - y0 >= model.LEAST_SHARE:
            rect = model.Rect(x=x0, y=y0, w=x1 - x0, h=y1 - y0)
            areas.append(area.model_copy(update={"rect": rect}).model_dump(mode="json"))
    return {
        "focal_x": inside(fx),
        "focal_y": inside(fy),
        "areas": areas,
        "revision": original.revision + 1,
    }
