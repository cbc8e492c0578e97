"""What is to be made."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import AfterValidator, Field

from skypane.geometry import Crop
from skypane.values import Noun

Format = Literal["avif", "webp", "jpeg", "png"]

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
    quality: int
    spans: tuple[str, ...]
    name: str
    needed_px: int
    key: str  # hash of all that makes the file

    @property
    def share(self) -> float:
        """Pixels that are there over pixels that are needed; below 1 the file is soft."""
        return self.width_px / self.needed_px

    @property
    def descriptor(self) -> str:
        """As a candidate of `srcset` says it: 2x or 800w."""
        return f"{self.width_px}w" if self.density is None else f"{self.density:g}x"
