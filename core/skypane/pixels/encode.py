"""Renditions as files: AVIF, WebP, JPEG, and PNG where transparency has no newer format.

Camera and location data are removed. Files are tagged 72 dpi because hand-offs expect it; a browser
does not look at it.
"""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping, Sequence
from pathlib import Path
from typing import Any

import pyvips

from skypane.errors import UnreadablePicture
from skypane.geometry import Rect
from skypane.model import Format, Rendition
from skypane.pixels.cut import cut, open_upright, to_srgb
from skypane.pixels.load import HEAD_BYTES, CannotOpen, kind_of, lacked_memory, open_any

_PER_MM = 72 / 25.4
#: The JFIF segment (ITU-T T.871 §10.1) with 72 × 72 dots per inch, which libvips leaves out
#: together with other metadata.
_JFIF_72 = b"\xff\xe0\x00\x10JFIF\x00\x01\x02\x01\x00\x48\x00\x48\x00\x00"


def write(image: pyvips.Image, path: str | Path, format_: Format, quality: int) -> None:
    """Encode to `path`. 4:2:0 subsampling as all three formats have it at web qualities (common
    practice)."""
    image = image.copy(xres=_PER_MM, yres=_PER_MM)
    target = str(path)
    match format_:
        case "avif":
            image.heifsave(target, Q=quality, compression="av1", effort=3, keep="none")
        case "webp":
            image.webpsave(target, Q=quality, effort=4, smart_subsample=True, keep="none")
        case "jpeg":
            flat = image.flatten(background=[255, 255, 255]) if image.hasalpha() else image
            data: bytes = flat.jpegsave_buffer(
                Q=quality, optimize_coding=True, interlace=True, keep="none"
            )
            Path(path).write_bytes(
                data if data[2:4] == b"\xff\xe0" else data[:2] + _JFIF_72 + data[2:]
            )
        case "png":
            image.pngsave(target, compression=9, effort=7, keep="none")


def make(
    source: str | Path, wanted: Sequence[Rendition], folder: Path
) -> Iterator[tuple[Rendition, Path, int]]:
    """Make renditions of one original, yielding (rendition, path, bytes) as each is done.

    The original is decoded once; each crop at each size is resampled once and serves all its
    formats. A file is complete under its name `<key>.<format>` or not there at all.
    """
    image = open_upright(source)
    by_px: dict[tuple[int, ...], list[Rendition]] = {}
    for r in wanted:
        by_px.setdefault(
            (r.crop.x, r.crop.y, r.crop.w, r.crop.h, r.width_px, r.height_px), []
        ).append(r)
    for same in by_px.values():
        pixels = cut(image, same[0].crop, (same[0].width_px, same[0].height_px))
        for r in same:
            path = folder / f"{r.key}.{r.format}"
            part = path.with_suffix(f".{r.format}.part")
            write(pixels, part, r.format, r.quality)
            part.replace(path)
            yield r, path, path.stat().st_size


def preview(source: str | Path, path: Path, width_px: int, crop: Rect | None = None) -> None:
    """One preview; see `previews`."""
    previews(source, {width_px: path}, crop)


def previews(source: str | Path, paths: Mapping[int, Path], crop: Rect | None = None) -> None:
    """WebPs of the whole original, or of a crop of it, each at most as many px wide as its key
    says, upright, in sRGB.

    The original is decoded once, for the widest; the narrower ones are made from that. Raises
    UnreadablePicture where the original can no longer be opened.
    """
    widest = max(paths)
    try:
        image = _thumbnail(
            source, widest if crop is None else math.ceil(widest / crop.w)
        ).copy_memory()
        if crop is not None:
            x, y = (
                min(int(f * n), n - 1) for f, n in ((crop.x, image.width), (crop.y, image.height))
            )
            w, h = (
                max(1, round(f * n)) for f, n in ((crop.w, image.width), (crop.h, image.height))
            )
            image = image.crop(x, y, min(w, image.width - x), min(h, image.height - y))
        for width_px, path in sorted(paths.items(), reverse=True):
            image = image.thumbnail_image(width_px, **_DOWN)
            image.webpsave(str(path), Q=80, effort=2, keep="none")
    except (pyvips.Error, CannotOpen) as error:
        if isinstance(error, pyvips.Error) and lacked_memory(error):
            raise MemoryError from error
        raise UnreadablePicture("The original can no longer be opened. Bring it again.") from error


#: Only ever smaller, and never bound by the height.
_DOWN: dict[str, Any] = {"height": 10_000_000, "size": "down"}


def _thumbnail(source: str | Path, width_px: int) -> pyvips.Image:
    with Path(source).open("rb") as f:
        kind = kind_of(f.read(HEAD_BYTES))
    image = open_any(source, kind)
    if kind in ("heic", "svg"):
        return to_srgb(image).copy_memory().thumbnail_image(width_px, **_DOWN)
    plain = image.interpretation in ("srgb", "b-w") and not image.get_typeof("icc-profile-data")
    return pyvips.Image.thumbnail(
        str(source), width_px, **_DOWN, **({} if plain else {"output_profile": "srgb"})
    )
