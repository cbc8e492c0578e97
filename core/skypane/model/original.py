"""An original and the areas on it, in fractions of the picture from its top left corner."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from skypane.geometry import Drawn
from skypane.model.condition import When
from skypane.model.medium import MEDIA, MediumName
from skypane.model.tiny import Tiny
from skypane.values import Fraction, Id, Noun, Px

AreaName = Annotated[str, Field(min_length=1, max_length=80)]
MOST_AREAS = 40
MOST_WORDS = 1000

#: A drawing with more bytes than this is better in a file, which is fetched once.
MOST_DRAWING_BYTES = 4000

#: A side of a picture in image px. No camera, and no format that browsers show, goes further.
ImagePx = Annotated[int, Field(ge=1, le=100_000)]


class Area(Noun):
    """A keep area (must stay in view) or a quiet area (words may lie there). The order in the list
    is its importance."""

    name: AreaName
    rect: Drawn
    kind: Literal["keep", "quiet"] = "keep"
    least_px: Px | None = None  # the width in CSS px that it has to be shown at (a face, lettering)
    # words that are part of the picture: the alt text has to say them (WCAG 2.2, 1.1.1 and 1.4.5)
    lettering: bool = False


class Original(Noun):
    """A picture as it was brought in. Pixel sizes are after its orientation has been applied."""

    id: Id
    name: Annotated[str, Field(min_length=1, max_length=200)]
    width_px: ImagePx
    height_px: ImagePx
    size_bytes: Annotated[int, Field(ge=0, le=2**53)] = 0
    sha256: Annotated[str, Field(max_length=64)] = ""
    alpha: bool = False
    flat: bool = False  # few colours, as drawings have: what loses nothing is then small too
    medium: MediumName = "picture"
    frames: Annotated[int, Field(ge=1)] = 1  # more than one: it moves
    # what a small drawing is drawn with: SVG without scripts and references to the outside; "": it
    # is too large, or cannot be had so; None: nobody has looked yet
    drawing: Annotated[str, Field(max_length=MOST_DRAWING_BYTES)] | None = None
    # another original that this one is a version of, to show in its place under conditions
    version_of: Id | None = None
    version_when: When = ()
    tiny: Tiny | None = None  # None: nobody has looked yet
    alt: Annotated[str, Field(max_length=MOST_WORDS)] | None = (
        None  # None: nobody has said yet; "": decorative on purpose
    )
    focal: tuple[Fraction, Fraction] = (0.5, 0.5)
    areas: Annotated[tuple[Area, ...], Field(max_length=MOST_AREAS)] = ()
    tags: Annotated[tuple[Annotated[str, Field(max_length=40)], ...], Field(max_length=20)] = ()

    @property
    def has_px(self) -> bool:
        """Whether it has px of its own, which can be too few (see `Medium`)."""
        return MEDIA[self.medium].has_px

    @property
    def keeps(self) -> tuple[Area, ...]:
        return tuple(a for a in self.areas if a.kind == "keep")
