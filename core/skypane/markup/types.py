"""The media types of the formats that are handed over (IANA, Media Types)."""

from __future__ import annotations

from skypane.model import Format

TYPES: dict[Format, str] = {
    "avif": "image/avif",
    "webp": "image/webp",
    "jpeg": "image/jpeg",
    "png": "image/png",
    "svg": "image/svg+xml",
}
