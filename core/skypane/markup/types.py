"""The media types of the formats that are handed over (IANA, Media Types)."""

from __future__ import annotations

#: By format.
TYPES: dict[str, str] = {
    "avif": "image/avif",
    "webp": "image/webp",
    "jpeg": "image/jpeg",
    "png": "image/png",
    "svg": "image/svg+xml",
}
