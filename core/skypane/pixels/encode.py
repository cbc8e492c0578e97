"""Renditions as files, each in the fewest bytes that are as like the lossless resample as the site
asks for (rules §10).

AVIF by SVT-AV1 where there is no transparency, else by libaom; WebP; progressive JPEG; PNG, as a
palette where that loses nothing. Camera and location data are removed.
Files are tagged 72 dpi because hand-offs expect it; a browser does not look at it.
"""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from pathlib import Path
from typing import Any, NamedTuple

import numpy as np
import pyvips
from numpy.typing import NDArray

from skypane.errors import UnreadablePicture
from skypane.geometry import Crop
from skypane.model import Effort, Format, Rendition
from skypane.pixels import avif, colours
from skypane.pixels.coded import CodedLuma
from skypane.pixels.cut import cut, open_upright, to_srgb
from skypane.pixels.likeness import Likeness, LumaRows, Rows
from skypane.pixels.load import kind_of, open_any
from skypane.pixels.sample import FROM_PX, SQUARE, Sample
from skypane.pixels.search import Begin, Guess, Scale, coarsest, linear
from skypane.pixels.svg import cleaned

_PER_MM = 72 / 25.4
#: The JFIF segment (ITU-T T.871 §10.1) with 72 × 72 dots per inch, which libvips leaves out
#: together with other metadata.
_JFIF_72 = b"\xff\xe0\x00\x10JFIF\x00\x01\x02\x01\x00\x48\x00\x48\x00\x00"


def _jpeg_fine(quality: int) -> float:
    """By what libjpeg scales the tables of ITU-T T.81, annex K, for a quality."""
    return -math.log(5000 / quality if quality < 50 else 200 - 2 * quality)


def _webp_fine(quality: int) -> float:
    """By the index into the quantiser's table that libwebp takes for a quality (its
    QualityToCompression); the table's first half goes up one by one from 4 (RFC 6386, §14.1)."""
    c = quality / 150 if quality < 75 else quality / 50 - 1
    return -math.log(127 * (1 - c ** (1 / 3)) + 4)


#: Qualities in each encoder's own scale, the coarsest first; where the usual target is met, and how
#: −ln(1 − SSIM) grows (measured on the demo's photographs); from which on a chart's colours stay
#: within ΔE2000 1.5 (measured; from 74 on JPEG holds the mean colour of a block to half a level).
#: The steps of AV1 grow nearly by equal shares. `rough` is fitted to samples of the demo's
#: photographs at SSIM 0.94 to 0.98, which it foretells to within 0.2 of −ln(1 − SSIM).
JPEG = Scale(range(40, 99), _jpeg_fine, begin=70, slope=0.8, faithful=76)
WEBP = Scale(range(40, 100), _webp_fine, begin=62, slope=1.3, faithful=60, rough=(-1.098, 0.573))
SVT = Scale(range(18, 62), float, begin=33, slope=0.074, faithful=30, rough=(79.6, 10.79))
AOM = Scale(range(36, 97), float, begin=58, slope=0.02, faithful=50)

SVT_PRESETS: dict[Effort, int] = {"quick": 9, "thorough": 7}
AOM_EFFORT: dict[Effort, int] = {"quick": 1, "thorough": 3}
#: At equal SSIM effort 3 takes as many bytes as greater ones; 2 takes 6 % more in less than half
#: the time (measured on the demo's photographs).
WEBP_EFFORT: dict[Effort, int] = {"quick": 2, "thorough": 3}
PNG_EFFORT: dict[Effort, int] = {"quick": 3, "thorough": 8}

#: By so many levels a colour differs clearly, and from such a share of px on it is seen (measured:
#: photographs stay below 0.2 %, drawings and signal flags are above).
SHARP_LEVELS, SHARP_SHARE = 48, 0.0025

#: So many px say what share of a picture has sharp colours.
ENOUGH_PX = 400_000

Planes = tuple[NDArray[np.uint8], ...]

#: More colours than this are no palette (PNG, Third Edition, §11.2.2 PLTE).
MOST_COLOURS = 256


class Fact(NamedTuple):
    """What a made file turned out to be. `quality` is in its encoder's own scale, 0 where nothing
    is lost; `ssim` of luma against the resample; `encodes` how many tries that took, and `samples`
    how many of a sample of it."""

    size_bytes: int
    quality: int
    ssim: float
    encodes: int
    samples: int = 0


class Encoded(NamedTuple):
    data: bytes
    quality: int
    ssim: float
    encodes: int
    samples: int = 0


class Cutting:
    """One crop at one px size, and what is made of it more than once."""

    def __init__(self, pixels: pyvips.Image) -> None:
        self.pixels = pixels.copy(xres=_PER_MM, yres=_PER_MM)
        self.alpha = bool(pixels.hasalpha()) and not _is_opaque(pixels)
        self.flat = pixels
        if pixels.hasalpha():
            self.flat = self.pixels.flatten(background=[255, 255, 255]).copy_memory()
        self._likeness: Likeness | None = None
        self._sharp: bool | None = None
        self._planes: Planes | None = None
        self._sample: Sample | None = None
        self._rough: dict[float, Guess] = {}

    @property
    def likeness(self) -> Likeness:
        if self._likeness is None:
            self._likeness = Likeness(self.flat)
        return self._likeness

    @property
    def sharp(self) -> bool:
        """Whether its colours have edges that suffer where four px share one colour."""
        if self._sharp is None:
            self._sharp = chroma_edges(self.flat) > SHARP_SHARE
        return self._sharp

    @property
    def planes(self) -> Planes:
        if self._planes is None:
            self._planes = avif.yuv420(self.flat)
        return self._planes

    @property
    def sample(self) -> Sample | None:
        """What is looked at in the place of the whole picture; None where it is too small for
        that."""
        size = self.flat.width, self.flat.height
        if self._sample is None and size[0] * size[1] >= FROM_PX and min(size) >= SQUARE:
            self._sample = Sample(self.flat)
        return self._sample

    def rough(self, target: float) -> Guess:
        """How JPEGs meet the target: of a sample, or of a picture that is too small for one. They
        are made in no time, and tell about the other formats too."""
        if target not in self._rough:
            picture = self.sample.picture if self.sample else self.flat
            to = self.sample.to if self.sample else self.likeness.to

            def tried(quality: int) -> float:
                return to(seen_luma(jpeg(picture, quality, sharp=self.sharp)))

            guess = self._rough[target] = Guess(JPEG, linear(target))
            guess.try_samples(tried)
        return self._rough[target]

    def _begin(self, format_: Format, codec: Codec, target: float) -> Begin | None:
        """Where the search for a quality begins."""
        if self.alpha:
            return None
        rough, sample = self.rough(target), self.sample
        if format_ == "jpeg":
            return rough.begin
        first = codec.scale.place_roughly(rough.fine())
        if not sample:
            return Begin(first)
        guess = Guess(codec.scale, linear(target))

        def sampled(quality: int) -> float:
            return sample.to(codec.read(codec.make(sample.picture, quality)))

        guess.try_samples(sampled, first)
        return guess.begin

    def encode(self, format_: Format, target: float, effort: Effort) -> Encoded:
        """The smallest file of a format that reaches the target."""
        if format_ == "png":
            return Encoded(png(self.pixels if self.alpha else self.flat, effort), 0, 1.0, 1)
        codec = self.codec(format_, effort)
        begin = self._begin(format_, codec, target)

        def one(quality: int) -> tuple[bytes, float]:
            data = codec.make(codec.image, quality)
            return data, self.likeness.to(codec.read(data))

        found = coarsest(codec.scale, target, one, begin)
        data = found.made
        if codec.finish:
            data = codec.finish(codec.image, found.quality)
        samples = begin.samples if begin else 0
        return Encoded(data, found.quality, found.ssim, found.encodes, samples)

    def encode_once(self, format_: Format, target: float) -> Encoded:
        """About the file that reaches the target, in one try where nothing shows through: at the
        quality that a sample foretells, which is looked at no more. Its `ssim` is what is expected
        of it."""
        codec = None if format_ == "png" else self.codec(format_, "quick")
        begin = codec and self._begin(format_, codec, target)
        if codec is None or begin is None:
            return self.encode(format_, target, "quick")
        quality = codec.scale.qualities[begin.place]
        data = (codec.finish or codec.make)(codec.image, quality)
        return Encoded(data, quality, target, 1, begin.samples)

    def codec(self, format_: Format, effort: Effort) -> Codec:
        """The encoder of a format for this picture, as it is set. Raises KeyError for a format that
        loses nothing: there is no quality to ask for."""
        if format_ not in ("jpeg", "webp", "avif"):
            raise KeyError(format_)
        image = self.pixels if self.alpha else self.flat
        if format_ == "jpeg":
            return Codec(
                JPEG,
                self.flat,
                lambda image, q: jpeg(image, q, sharp=self.sharp),
                seen_luma,
                finish=lambda image, q: progressive(image, q, effort, sharp=self.sharp),
            )
        if format_ == "webp":
            read = seen_luma if self.alpha else CodedLuma
            return Codec(
                WEBP, image, lambda image, q: webp(image, q, effort, sharp=self.sharp), read
            )
        if self.alpha or not avif.takes(self.flat.width, self.flat.height):
            return Codec(AOM, image, lambda image, q: aom(image, q, effort), seen_luma)

        def svt(image: pyvips.Image, q: int) -> bytes:
            planes = self.planes if image is self.flat else avif.yuv420(image)
            size = image.width, image.height
            return avif.encoded(planes, size, avif.COARSEST - q, SVT_PRESETS[effort])

        return Codec(SVT, self.flat, svt, CodedLuma)


class Codec(NamedTuple):
    """An encoder with its scale, the picture it is for, and how its files are read to be compared.
    `finish` makes the file that is handed over where those that are tried say the same px in more
    bytes."""

    scale: Scale
    image: pyvips.Image
    make: Callable[[pyvips.Image, int], bytes]
    read: Callable[[bytes], Rows]
    finish: Callable[[pyvips.Image, int], bytes] | None = None


def seen_luma(data: bytes) -> Rows:
    """What is seen of it, transparency on white."""
    return LumaRows(pyvips.Image.new_from_buffer(data, ""))


def _is_opaque(image: pyvips.Image) -> bool:
    return bool(image[image.bands - 1].min() == 255)


def jpeg(image: pyvips.Image, quality: int, *, sharp: bool = False) -> bytes:
    """Made in no time; 4:2:0 unless colours have sharp edges. Without trellis quantisation, which
    saves 4 % of bytes at equal SSIM and takes three times as long (measured on the demo's
    photographs)."""
    data: bytes = image.jpegsave_buffer(
        Q=quality, subsample_mode="off" if sharp else "on", keep="none"
    )
    return data


def progressive(image: pyvips.Image, quality: int, effort: Effort, *, sharp: bool = False) -> bytes:
    """The px of `jpeg`, in scans; where there is time for it, in those that take the fewest
    bytes."""
    data: bytes = image.jpegsave_buffer(
        Q=quality,
        optimize_coding=True,
        interlace=True,
        optimize_scans=effort == "thorough",
        subsample_mode="off" if sharp else "on",
        keep="none",
    )
    return data if data[2:4] == b"\xff\xe0" else data[:2] + _JFIF_72 + data[2:]


def webp(image: pyvips.Image, quality: int, effort: Effort, *, sharp: bool = False) -> bytes:
    """4:2:0, as WebP always is; with `sharp` the four px that share a colour are weighed, which
    takes three times as long."""
    data: bytes = image.webpsave_buffer(
        Q=quality, effort=WEBP_EFFORT[effort], smart_subsample=sharp, keep="none"
    )
    return data


def chroma_edges(image: pyvips.Image) -> float:
    """The share of px whose colour differs clearly from the mean of the four that share one in
    4:2:0."""
    px = image.numpy()
    h, w = (n - n % 2 for n in px.shape[:2])
    if px.ndim < 3 or px.shape[2] < 3 or not h or not w:
        return 0.0
    # pairs of rows, evenly spread, as many as say enough
    pairs = px[:h].reshape(h // 2, 2, *px.shape[1:])[:: max(1, h * w // ENOUGH_PX)]
    px = pairs.reshape(-1, *px.shape[1:])[:, :w, :3].astype(np.float32)
    h = px.shape[0]
    y = px @ np.array([0.299, 0.587, 0.114], np.float32)
    clear = np.zeros((h, w), bool)
    for band in (0, 2):
        colour = px[..., band] - y
        mean = _halved(colour)
        clear |= np.abs(colour - np.repeat(np.repeat(mean, 2, 0), 2, 1)) > SHARP_LEVELS
    return float(clear.mean())


def _halved(plane: NDArray[Any]) -> NDArray[Any]:
    """The mean of each four px."""
    found: NDArray[Any] = (
        plane[::2, ::2] + plane[1::2, ::2] + plane[::2, 1::2] + plane[1::2, 1::2]
    ) / 4
    return found


def aom(image: pyvips.Image, quality: int, effort: Effort) -> bytes:
    """AVIF with transparency, or of a size that SVT-AV1 does not take."""
    data: bytes = image.heifsave_buffer(
        Q=quality, compression="av1", effort=AOM_EFFORT[effort], keep="none"
    )
    return data


def png(image: pyvips.Image, effort: Effort) -> bytes:
    """Every px as it is; as a palette where all colours fit into one and none is changed by it."""
    plain: bytes = image.pngsave_buffer(compression=9, effort=PNG_EFFORT[effort], keep="none")
    if colours.count(image, MOST_COLOURS) > MOST_COLOURS:
        return plain
    indexed: bytes = image.pngsave_buffer(
        compression=9, palette=True, Q=100, dither=0, effort=10, keep="none"
    )
    if len(indexed) >= len(plain):
        return plain
    back = pyvips.Image.pngload_buffer(indexed)
    back = back.colourspace("srgb") if back.interpretation != "srgb" else back
    a, b = image.numpy(), back.numpy()
    return indexed if a.shape == b.shape and np.array_equal(a, b) else plain


def make(
    source: str | Path, wanted: Sequence[Rendition], folder: Path
) -> Iterator[tuple[Rendition, Path, Fact]]:
    """Make renditions of one original, yielding (rendition, path, what it turned out to be) as each
    is done.

    The original is decoded once; each crop at each size is resampled once and serves all its
    formats. A file is complete under its name `<key>.<format>` or not there at all.
    """
    image: pyvips.Image | None = None
    by_px: dict[tuple[int, ...], list[Rendition]] = {}
    for r in sorted(wanted, key=lambda r: r.width_px):
        by_px.setdefault((*_box(r), r.width_px, r.height_px), []).append(r)
    for same in by_px.values():
        cutting: Cutting | None = None
        for r in same:
            without_px = _WITHOUT_PX.get(r.format)
            if without_px:
                found = without_px(source, r)
            else:
                if cutting is None:
                    image = image or open_upright(source)
                    cutting = Cutting(cut(image, r.crop, (r.width_px, r.height_px)))
                found = cutting.encode(r.format, r.likeness, r.effort)
                if r.animated:
                    found = found._replace(data=_moving(source, r, found.quality))
            yield (r, *_kept(r, found, folder))


def make_swiftly(source: str | Path, r: Rendition, folder: Path) -> tuple[Path, Fact]:
    """Make one rendition for somebody who waits for it: a JPEG is decoded at a fraction of its size
    of which at least twice as many px are left as are wanted, and the quality is foretold, not
    searched for (see `Cutting.encode_once`). The cut is then true to a quarter of a px of the file.
    Raises UnreadablePicture."""
    if r.animated or r.format in _WITHOUT_PX:
        _, path, fact = next(make(source, [r], folder))
        return path, fact
    shrink = _shrink(r) if kind_of(source) == "jpeg" else 1
    image = open_upright(source, shrink)
    crop = r.crop if shrink == 1 else _shrunk(r.crop, (image.width, image.height), shrink)
    return _kept(r, Cutting(cut(image, crop, _size(r))).encode_once(r.format, r.likeness), folder)


#: By what a JPEG can be decoded smaller (libjpeg: eighths of a block's 8 × 8 px).
_SHRINKS = (8, 4, 2)


def _shrink(r: Rendition) -> int:
    """By how much an original may be smaller for a rendition."""
    spare = min(r.crop.w / r.width_px, r.crop.h / r.height_px)
    return next((s for s in _SHRINKS if spare >= 2 * s), 1)


def _shrunk(crop: Crop, size: tuple[int, int], shrink: int) -> Crop:
    """A crop in the px of a picture that is `shrink` times smaller, and so large."""
    x, y = round(crop.x / shrink), round(crop.y / shrink)
    right, bottom = round((crop.x + crop.w) / shrink), round((crop.y + crop.h) / shrink)
    return Crop(x=x, y=y, w=min(right, size[0]) - x, h=min(bottom, size[1]) - y)


def _kept(r: Rendition, found: Encoded, folder: Path) -> tuple[Path, Fact]:
    """A file under its name, whole or not there at all."""
    path = folder / f"{r.key}.{r.format}"
    part = path.with_suffix(f".{r.format}.part")
    part.write_bytes(found.data)
    part.replace(path)
    ssim = round(found.ssim, 5)
    return path, Fact(len(found.data), found.quality, ssim, found.encodes, found.samples)


def _drawing(source: str | Path, r: Rendition) -> Encoded:
    """An SVG as it is, cleaned and cut. Raises UnreadablePicture."""
    whole = open_any(source, "svg")
    x, y, w, h = _box(r)
    crop = (x / whole.width, y / whole.height, w / whole.width, h / whole.height)
    data = cleaned(Path(source).read_bytes(), crop, (r.width_px, r.height_px))
    if data is None:
        raise UnreadablePicture(
            "This SVG says neither a viewBox nor a width and height in px. Save it with a viewBox."
        )
    return Encoded(data, 0, 1.0, 1)


#: How files are made of an original whose medium has no px (see `model.medium`).
_WITHOUT_PX: Mapping[Format, Callable[[str | Path, Rendition], Encoded]] = {"svg": _drawing}


def _moving(source: str | Path, r: Rendition, quality: int) -> bytes:
    """All frames as an animated WebP, each cut and resampled like the first."""
    pages = pyvips.Image.new_from_file(str(source), n=-1)
    high = pages.get("page-height")
    frames = [
        cut(to_srgb(pages.crop(0, top, pages.width, high)).copy_memory(), r.crop, _size(r))
        for top in range(0, pages.height - high + 1, high)
    ]
    joined = pyvips.Image.arrayjoin(frames, across=1).copy_memory()
    joined.set_type(pyvips.GValue.gint_type, "page-height", r.height_px)
    for name in ("delay", "loop"):
        if pages.get_typeof(name):
            joined.set_type(pages.get_typeof(name), name, pages.get(name))
    data: bytes = joined.webpsave_buffer(Q=quality, effort=WEBP_EFFORT[r.effort])
    return data


def _size(r: Rendition) -> tuple[int, int]:
    return r.width_px, r.height_px


def _box(r: Rendition) -> tuple[int, ...]:
    return r.crop.x, r.crop.y, r.crop.w, r.crop.h
