"""Taking a picture in: its bytes are read, refused with a sentence or kept by their hash, and previews are made."""

from __future__ import annotations

import hashlib
import tempfile
import unicodedata
from pathlib import Path

from config.files import keep, local
from django.core.files.uploadedfile import UploadedFile
from django.db import IntegrityError, transaction
from sites.models import Site
from skypane.pixels.encode import preview
from skypane.pixels.inspect import inspect

from originals.models import Original

PREVIEW_WIDTHS = (480, 1600)


def clean_name(name: str) -> str:
    """A name that is safe to show and to store: no path, no control characters, at most 120 characters with its suffix."""
    plain = unicodedata.normalize("NFC", name.replace("\\", "/").rpartition("/")[2])
    plain = "".join(c for c in plain if c.isprintable()).strip(" .") or "picture"
    stem, dot, suffix = plain.rpartition(".")
    if not dot or len(suffix) > 8:
        return plain[:120]
    return f"{stem[: 119 - len(suffix)]}.{suffix}"


def take_in(site: Site, upload: UploadedFile) -> tuple[Original, bool]:
    """The original made of an upload, and whether it is new. Raises UnreadablePicture; then nothing is kept."""
    with tempfile.TemporaryDirectory() as folder:
        path = Path(folder) / "upload"
        digest = hashlib.sha256()
        with path.open("wb") as f:
            for chunk in upload.chunks():
                digest.update(chunk)
                f.write(chunk)
        return take_in_path(site, path, clean_name(upload.name or ""), digest.hexdigest())


def take_in_path(site: Site, path: Path, name: str, sha256: str) -> tuple[Original, bool]:
    found = inspect(path, name)
    existing = Original.objects.filter(site=site, sha256=sha256).first()
    if existing:
        return existing, False
    original = Original(
        site=site,
        name=name,
        sha256=sha256,
        format=found.format,
        width_px=found.width_px,
        height_px=found.height_px,
        size_bytes=found.size_bytes,
        alpha=found.alpha,
        profile=found.profile[:200],
        notes=list(found.notes),
    )
    keep(path, original.stored)
    for width in PREVIEW_WIDTHS:
        made = path.with_name(f"preview-{width}.webp")
        preview(path, made, width)
        keep(made, original.preview(width))
    try:
        with transaction.atomic():
            original.save()
    except IntegrityError:  # the same picture came twice at once
        return Original.objects.get(site=site, sha256=sha256), False
    return original, True


def make_preview_again(original: Original, width_px: int) -> None:
    """For previews that were lost with a cache: they can always be made from the original."""
    with local(original.stored) as source, tempfile.TemporaryDirectory() as folder:
        made = Path(folder) / "preview.webp"
        preview(source, made, width_px)
        keep(made, original.preview(width_px))
