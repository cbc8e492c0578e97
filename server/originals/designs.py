"""Taking a picture of a design in."""

from __future__ import annotations

from pathlib import Path

from common.files import keep
from common.pictures import guard
from skypane.errors import UnreadablePicture

from originals.models import Design

#: What a browser shows as it is, to the px.
TYPES = {"png": "image/png", "jpeg": "image/jpeg", "webp": "image/webp", "avif": "image/avif"}


def read_design(path: Path, name: str, sha256: str, *, drawn_for: int = 0) -> Design:
    """A design of no page yet, whose file is kept. Raises UnreadablePicture; then nothing is."""
    found = guard().inspect(path, name)
    if found.format not in TYPES:
        raise UnreadablePicture(
            f"{name} is not shown as it is by browsers. Export the design as PNG, JPEG, WebP or"
            " AVIF."
        )
    design = Design(
        name=name,
        sha256=sha256,
        format=found.format,
        width_px=found.width_px,
        height_px=found.height_px,
        drawn_for=drawn_for,
    )
    keep(path, design.stored)
    return design
