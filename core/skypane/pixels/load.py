"""Opening a picture of any kind that is taken, from its bytes and never from its name.

JPEG, PNG, WebP, AVIF, TIFF and GIF are read by libvips; HEIC by libheif with its HEVC decoder,
which libvips' build leaves out; SVG is drawn by librsvg from memory, so that it cannot reach for
other files. Of several frames or pages the first is used.
"""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pyvips

from skypane.pixels.svg import decoded, drawable, is_svg
from skypane.pixels.svg_weight import filter_seconds

# what has been opened is not opened the same way again: libvips need not keep 100 MB of it
pyvips.cache_set_max(0)

#: An SVG has no px of its own: it is drawn so that its longer side has this many.
DRAWN_PX = 4096


#: The longest that drawing one may take, in seconds of computing.
DRAWING_SECONDS = 10.0

#: How much of a file is looked at to tell its kind: a document type can stand before an SVG's root.
HEAD_BYTES = 65536


class CannotOpen(Exception):
    """The bytes cannot be decoded. What a library says about it is for the log; `sentence` is the
    rest of a sentence for users."""

    def __init__(
        self, reason: str, sentence: str = "is damaged and cannot be opened. Export it again."
    ) -> None:
        super().__init__(reason)
        self.sentence = sentence


def lacked_memory(error: Exception) -> bool:
    """Whether a library gave up because it was not given memory: all of them use this word."""
    return "memory" in str(error).lower()


def format_of(head: bytes) -> str | None:
    """The kind by the first bytes (the signatures of the formats' own specifications)."""
    if head.startswith(b"\xff\xd8\xff"):
        return "jpeg"
    if head.startswith(b"\x89PNG\r\n\x1a\n"):
        return "png"
    if head[:4] == b"RIFF" and head[8:12] == b"WEBP":
        return "webp"
    if head[:4] in (b"II*\0", b"MM\0*", b"II+\0", b"MM\0+"):
        return "tiff"
    if head[:6] in (b"GIF87a", b"GIF89a"):
        return "gif"
    if head[4:8] == b"ftyp":
        brands = {
            head[i : i + 4]
            for i in (8, *range(16, min(int.from_bytes(head[:4], "big"), len(head)), 4))
        }
        if brands & {b"avif", b"avis"}:
            return "avif"
        if brands & {b"heic", b"heix", b"heim", b"heis", b"hevc", b"mif1", b"msf1"}:
            return "heic"
        return None
    return "svg" if is_svg(decoded(head)) else None


def kind_of(path: str | Path) -> str | None:
    """The kind of a file by its first bytes; None where it is none that is known."""
    with Path(path).open("rb") as f:
        return format_of(f.read(HEAD_BYTES))


def is_drawing(path: str | Path) -> bool:
    """Whether a file is an SVG."""
    return kind_of(path) == "svg"


def open_any(
    path: str | Path, kind: str | None = None, *, strict: bool = False, shrink: int = 1
) -> pyvips.Image:
    """The picture as it is stored: its own px, bands, profile and orientation tag. `strict`: damage
    that a decoder draws over is an error as well, which comes when px are asked for. A JPEG is
    decoded at a `shrink`-th of its size (1, 2, 4 or 8), in a fraction of the time; nothing else is.
    Raises CannotOpen."""
    path = Path(path)
    kind = kind or kind_of(path)
    try:
        if kind == "heic":
            return _open_heic(path)
        if kind == "svg":
            return _open_svg(path.read_bytes())
        asked: dict[str, str | int] = {"access": "sequential", "fail_on": _fail_on(kind, strict)}
        if kind == "jpeg" and shrink > 1:
            asked["shrink"] = shrink
        if kind == "jpeg" and may_lack_end(path):
            # all that was written before it may be there
            return pyvips.Image.new_from_buffer(path.read_bytes() + _END_OF_JPEG, "", **asked)
        return pyvips.Image.new_from_file(str(path), **asked)
    except pyvips.Error as error:
        if lacked_memory(error):
            raise MemoryError from error
        raise CannotOpen(str(error)) from error


def _fail_on(kind: str | None, strict: bool) -> str:
    """At which faults libvips gives up. libtiff fills in what is missing and calls it an error;
    other readers tell a file that ends early from lesser faults, which are warnings of libjpeg and
    errors of libpng."""
    if kind == "tiff" or (strict and kind == "png"):
        return "error"
    return "warning" if strict and kind == "jpeg" else "truncated"


#: The marker that ends a JPEG (ITU-T T.81, B.1.1.3: EOI).
_END_OF_JPEG = b"\xff\xd9"


def lacks_end(path: str | Path) -> bool:
    """Whether a JPEG ends without its end, by decoding it."""
    if not may_lack_end(path):
        return False
    try:
        pyvips.Image.new_from_file(str(path), access="sequential", fail_on="truncated").avg()
    except pyvips.Error as error:
        return "premature end of JPEG image" in str(error)
    return False


def may_lack_end(path: str | Path) -> bool:
    """Whether a JPEG's last bytes are not its end: it is missing, or other data come after it."""
    with Path(path).open("rb") as f:
        f.seek(0, 2)
        f.seek(max(0, f.tell() - 64))
        return _END_OF_JPEG not in f.read()


def _open_svg(raw: bytes) -> pyvips.Image:
    data = drawable(raw)
    if data is None:
        raise CannotOpen(
            "entities",
            "uses entities of its own (&name;), which are not read. Save it as plain SVG.",
        )
    first = pyvips.Image.svgload_buffer(data)
    longer = max(first.width, first.height)
    seconds = filter_seconds(data, max(longer, DRAWN_PX))
    if seconds > DRAWING_SECONDS:
        raise CannotOpen(
            "filters",
            f"has filters that take at least {seconds:.0f} s to draw; at most {DRAWING_SECONDS:g} s"
            " are spent on a drawing. Make their radii smaller, or export it as PNG.",
        )
    return (
        pyvips.Image.svgload_buffer(data, scale=DRAWN_PX / longer) if longer < DRAWN_PX else first
    )


def _open_heic(path: Path) -> pyvips.Image:
    import pillow_heif

    try:
        file = pillow_heif.open_heif(path, convert_hdr_to_8bit=True)
        found = file[file.primary_index]
        width, height = found.size
        bands = {"L": 1, "RGB": 3, "RGBA": 4}[found.mode]
        row, plain = found.stride, width * bands
        data = memoryview(found.data).tobytes()
    except MemoryError:
        raise
    except Exception as error:  # its errors are of many kinds
        raise CannotOpen(str(error)) from error
    if row != plain:
        data = b"".join(data[y * row : y * row + plain] for y in range(height))
    image = pyvips.Image.new_from_memory(data, width, height, bands, "uchar")
    image = image.copy(interpretation="b-w" if bands == 1 else "srgb")
    profile = found.info.get("icc_profile")
    if profile:
        image.set_type(pyvips.GValue.blob_type, "icc-profile-data", memoryview(profile).tobytes())  # type: ignore[arg-type]
    if len(file) > 1:
        image.set_type(pyvips.GValue.gint_type, "n-pages", len(file))
    return image


def values_of(path: str | Path) -> np.ndarray:
    """The whole sRGB values of a small picture of our own, (height, width, 3 or 4). Raises
    CannotOpen."""
    image = open_any(path).colourspace("srgb")
    try:
        found: np.ndarray = image.numpy()
    except pyvips.Error as error:
        raise CannotOpen(str(error)) from error
    return found
