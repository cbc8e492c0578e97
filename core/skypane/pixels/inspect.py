"""What a file is, read from its bytes and never from its name.

Refused with a sentence: nothing in it, text, kinds that are not taken, more px than can be worked
with, files that end early.
"""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path
from typing import Any

import pyvips

from skypane.errors import UnreadablePicture
from skypane.pixels import colours
from skypane.pixels.load import (
    HEAD_BYTES,
    CannotOpen,
    format_of,
    lacked_memory,
    lacks_end,
    open_any,
)
from skypane.pixels.svg import drawing_of
from skypane.pixels.tiny import tiny_of

#: Largest side and area that are taken, in px. 400 Mpx is four times the largest common camera
#: back.
MOST_SIDE_PX = 32_000
MOST_AREA_PX = 400_000_000

#: A picture with more colours than this is no drawing (common practice: a palette of 256, and
#: smoothed edges between each two of a few).
FLAT_COLOURS = 1024

KINDS = {
    "jpeg": "a JPEG",
    "png": "a PNG",
    "webp": "a WebP",
    "avif": "an AVIF",
    "tiff": "a TIFF",
    "heic": "an HEIC",
    "gif": "a GIF",
    "svg": "an SVG",
}
TAKEN = "JPEG, PNG, WebP, AVIF, TIFF, HEIC, GIF or SVG"
_SUFFIXES = {
    ".jpg": "jpeg",
    ".jpeg": "jpeg",
    ".png": "png",
    ".webp": "webp",
    ".avif": "avif",
    ".tif": "tiff",
    ".tiff": "tiff",
    ".heic": "heic",
    ".heif": "heic",
    ".gif": "gif",
    ".svg": "svg",
}


@dataclass(frozen=True)
class Inspected:
    """`width_px` and `height_px` are those after the orientation has been applied. `notes`:
    sentences worth telling."""

    format: str
    width_px: int
    height_px: int
    size_bytes: int
    alpha: bool
    profile: str
    notes: tuple[str, ...] = ()
    flat: bool = False  # few colours, as drawings have
    frames: int = 1
    drawing: str | None = None  # of an SVG, see `skypane.model.original`
    tiny: dict[str, Any] | None = None  # of what cannot be seen through, see `skypane.model.tiny`


def inspect(path: str | Path, name: str = "") -> Inspected:
    """Read what a picture is and decode it once, so that a truncated file is found now and not in
    an export.

    Raises UnreadablePicture with a sentence that names the file's fault and the remedy.
    """
    path = Path(path)
    called = name or path.name
    size = path.stat().st_size
    if size == 0:
        raise UnreadablePicture(
            f"{called} is empty: it has no bytes. Export it again, then bring it here."
        )
    with path.open("rb") as f:
        head = f.read(HEAD_BYTES)
    kind = format_of(head)
    if kind is None:
        raise UnreadablePicture(f"{called} {_what_it_is(head)}. Bring a {TAKEN}.")
    try:
        image = open_any(path, kind)
    except CannotOpen as error:
        raise UnreadablePicture(f"{called} {error.sentence}") from error
    if max(image.width, image.height) > MOST_SIDE_PX or image.width * image.height > MOST_AREA_PX:
        raise UnreadablePicture(
            f"{called} is {image.width} × {image.height} px, more than can be worked with. Scale it"
            f" to at most {MOST_SIDE_PX} px a side and {MOST_AREA_PX // 1_000_000} megapixels."
        )
    notes = []
    if kind == "svg":
        notes.append(
            f"An SVG has no px of its own: it is drawn at {image.width} × {image.height} px for"
            " export."
        )
    pages = image.get("n-pages") if image.get_typeof("n-pages") else 1
    if pages > 1:
        said = f"It has {pages} {'frames' if kind in ('gif', 'webp', 'avif') else 'pages'}"
        moves = kind in ("gif", "webp")
        notes.append(
            f"{said}: it is delivered as an animated WebP, with the first frame for older browsers."
            if moves
            else f"{said}; the first is used."
        )
    if image.interpretation in ("cmyk", "rgb16", "grey16"):
        what = {
            "cmyk": "It is in CMYK",
            "rgb16": "It has 16 bits a channel",
            "grey16": "It has 16 bits a channel",
        }
        notes.append(
            f"{what[image.interpretation]}; previews and exports are converted to 8-bit sRGB."
        )
    if said := _decoded(path, kind, called):
        notes.append(said)
    meant = _SUFFIXES.get(Path(called).suffix.lower())
    if meant != kind:
        notes.append(f"{called} is {KINDS[kind]} inside, and is kept as one.")
    turned = image.get("orientation") if image.get_typeof("orientation") else 1
    width, height = (
        (image.height, image.width) if turned in (5, 6, 7, 8) else (image.width, image.height)
    )
    return Inspected(
        format=kind,
        width_px=width,
        height_px=height,
        size_bytes=size,
        alpha=bool(image.hasalpha()),
        profile=_profile(image),
        notes=tuple(notes),
        flat=kind in ("png", "gif") and _is_flat(path, kind),
        frames=pages if kind in ("gif", "webp") else 1,
        drawing=drawing_of(path, (width, height)) if kind == "svg" else None,
        tiny=None if image.hasalpha() or kind == "svg" else tiny_of(path).model_dump(),
    )


def _decoded(path: Path, kind: str, called: str) -> str:
    """Decode every px; what is to be said of damage that leaves a picture, "" where there is none.
    Raises UnreadablePicture where some of it is missing."""
    try:
        open_any(path, kind, strict=True).avg()
        whole = kind != "jpeg" or not lacks_end(path)
        return "" if whole else "The end of its file is missing; the whole picture is there."
    except (pyvips.Error, CannotOpen) as error:
        if lacked_memory(error):
            raise MemoryError from error
        harmless = "extraneous bytes" in str(error)  # between two parts of a JPEG
    try:
        if kind == "jpeg" and lacks_end(path):
            raise pyvips.Error("its end is missing, and some of what was before it")
        open_any(path, kind).avg()
    except (pyvips.Error, CannotOpen) as error:
        if lacked_memory(error):
            raise MemoryError from error
        raise UnreadablePicture(
            f"{called} ends early or is damaged inside: only part of the picture is there. Export"
            " or copy it again."
        ) from error
    if harmless:
        return ""
    return (
        "Its file is damaged inside. What can be read of it is used: look at it closely, or export"
        " it again."
    )


def _is_flat(path: Path, kind: str) -> bool:
    """Whether a picture has as few colours as a drawing, edges smoothed included."""
    image = open_any(path, kind).copy_memory()
    if image.format != "uchar":
        return False
    return colours.count(image, FLAT_COLOURS) <= FLAT_COLOURS


def _what_it_is(head: bytes) -> str:
    """What unusable bytes are, as the rest of a sentence."""
    signatures = (
        (b"%PDF", "is a PDF"),
        (b"BM", "is a BMP"),
        (b"PK\x03\x04", "is a zip archive"),
        (b"8BPS", "is a layered working file"),
    )
    for signature, sentence in signatures:
        if head.startswith(signature):
            return f"{sentence}, which is not taken here"
    if head[4:8] == b"ftyp":
        return "is a video, which is not taken here"
    try:
        text = head[:4096].decode("utf-8")
    except UnicodeDecodeError:
        return "is no picture that can be recognised"
    return (
        "is text, not a picture"
        if text.isprintable() or "\n" in text
        else "is no picture that can be recognised"
    )


def _profile(image: pyvips.Image) -> str:
    """The embedded profile's description, "" without one."""
    if not image.get_typeof("icc-profile-data"):
        return ""
    data: bytes = image.get("icc-profile-data")
    return icc_description(data) or "unnamed profile"


def icc_description(data: bytes) -> str:
    """The `desc` tag of an ICC profile (ICC.1:2010 §9.2.41; text in `desc` or `mluc` form)."""
    if len(data) < 132:
        return ""
    count = int.from_bytes(data[128:132], "big")
    for i in range(min(count, 100)):
        entry = data[132 + 12 * i : 144 + 12 * i]
        if entry[:4] != b"desc":
            continue
        offset, length = int.from_bytes(entry[4:8], "big"), int.from_bytes(entry[8:12], "big")
        tag = data[offset : offset + length]
        if tag[:4] == b"desc":
            n = int.from_bytes(tag[8:12], "big")
            return tag[12 : 12 + n].split(b"\0")[0].decode("latin-1").strip()
        if tag[:4] == b"mluc" and len(tag) >= 28:
            n, at = int.from_bytes(tag[20:24], "big"), int.from_bytes(tag[24:28], "big")
            return tag[at : at + n].decode("utf-16-be", "replace").strip("\0 ")
    return ""
