"""What is to be made."""

from __future__ import annotations

from skypane.geometry import Crop
from skypane.model.site import Format
from skypane.values import Noun


class Rendition(Noun):
    """One file to export: a crop of an original at one pixel size, in one format.

    `needed_px` is the width that the frame asks for at this density; where `width_px` is less, the
    file is soft.
    """

    original: int
    crop: Crop
    width_px: int
    height_px: int
    format: Format
    density: float
    quality: int
    spans: tuple[str, ...]
    name: str
    needed_px: int
    key: str  # hash of all that makes the file

    @property
    def share(self) -> float:
        """Pixels that are there over pixels that are needed; below 1 the file is soft."""
        return self.width_px / self.needed_px
