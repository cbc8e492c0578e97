"""What is to be made."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, BeforeValidator, Field

from skypane.geometry import Crop
from skypane.values import Noun

Format = Literal["avif", "webp", "jpeg", "png", "svg"]
#: How much time an encoder may take: little to look at what comes of it, more for what is handed
#: over.
Effort = Literal["quick", "thorough"]

#: SSIM of luma that a file has at least against the lossless resample. Common practice: at
#: “standard” few see a difference side by side, at “fine” hardly anybody, at “light” many who look
#: for it.
TARGETS = {"fine": 0.97, "standard": 0.955, "light": 0.935}


def _target(value: object) -> object:
    return TARGETS.get(value, value) if isinstance(value, str) else value


#: A target by its word or as SSIM.
Likeness = Annotated[float, Field(ge=0.5, le=0.9999), BeforeValidator(_target)]


def _in_order(formats: tuple[Format, ...]) -> tuple[Format, ...]:
    """Most modern first: a browser takes the first type that it knows."""
    if "jpeg" not in formats:
        raise ValueError("JPEG must stay: it is the file for browsers that know no newer format.")
    return tuple(f for f in ("avif", "webp", "jpeg") if f in formats)


#: Formats that are offered; PNG takes the place of JPEG where there is transparency or flat art,
#: and a drawing in SVG stays one.
Formats = Annotated[tuple[Format, ...], Field(max_length=8), AfterValidator(_in_order)]

#: How files are offered to browsers: widths (`w`) with `sizes` for frames that change with the
#: page and densities (`x`) for those that do not; or always the one or the other.
Lists = Literal["fitting", "widths", "densities"]

#: More files of one crop and format than this help nobody (common practice: three to six).
MOST_RUNGS = 12


def _ascending(rungs: tuple[int, ...]) -> tuple[int, ...]:
    return tuple(sorted(set(rungs)))


#: Widths of a ladder in px, each once, from the narrowest.
Rungs = Annotated[
    tuple[Annotated[int, Field(ge=16, le=20_000)], ...],
    Field(min_length=1, max_length=MOST_RUNGS),
    AfterValidator(_ascending),
]


#: How long a px takes in each format, beside the others (measured on the demo's photographs).
_WORK: dict[Format, int] = {"avif": 10, "webp": 8, "jpeg": 4, "png": 12, "svg": 0}


class Rendition(Noun):
    """One file to export: a crop of an original at one pixel size, in one format.

    `density` is what it is offered for, None where it is offered by its width. `needed_px` is the
    width that the frame asks for; where `width_px` is less, the file is soft.
    """

    original: int
    crop: Crop
    width_px: int
    height_px: int
    format: Format
    density: float | None
    likeness: float
    effort: Effort = "thorough"
    animated: bool = False  # all frames of the original, not the first alone
    spans: tuple[str, ...]
    name: str
    needed_px: int
    key: str  # hash of all that makes the file

    def __hash__(self) -> int:
        """A hash of what tells files apart alone: it is asked for thousands of times while one
        picture of many is aimed."""
        return hash((self.key, self.name))

    @property
    def share(self) -> float:
        """Pixels that are there over pixels that are needed; below 1 the file is soft."""
        return self.width_px / self.needed_px

    @property
    def work(self) -> int:
        """How long it takes to make, beside others; for telling what is left."""
        return self.width_px * self.height_px * _WORK[self.format]

    @property
    def descriptor(self) -> str:
        """What a candidate of `srcset` says of it: 2x or 800w."""
        return f"{self.width_px}w" if self.density is None else f"{self.density:g}x"
