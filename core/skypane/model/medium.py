"""What an original is, and what can be asked of it. A medium is data: what asks it knows no
names."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from typing import Literal, NamedTuple

from skypane.model.files import Format

MediumName = Literal["picture", "drawing"]


class Medium(NamedTuple):
    """`has_px`: it has px of its own, which can be too few; what has none is sharp at any size, in
    one file. `formats` gives those that are made of one of it where a site asks for some: whether
    it is `lossless`, as what can be seen through or has few colours, and whether it `moves`."""

    has_px: bool
    formats: Callable[[Sequence[Format], bool, bool], tuple[Format, ...]]


_MOVING: tuple[Format, ...] = ("webp", "jpeg")


def _of_picture(asked: Sequence[Format], lossless: bool, moves: bool) -> tuple[Format, ...]:
    """PNG takes the place of JPEG where nothing is to be lost. What moves is a WebP, with its first
    frame for browsers that do not know it."""
    kept = [f for f in _MOVING if f in asked] if moves else asked
    return tuple("png" if f == "jpeg" and lossless else f for f in kept)


def _of_drawing(asked: Sequence[Format], lossless: bool, moves: bool) -> tuple[Format, ...]:
    """It stays one, whatever is asked for."""
    return ("svg",)


MEDIA: Mapping[MediumName, Medium] = {
    "picture": Medium(has_px=True, formats=_of_picture),
    "drawing": Medium(has_px=False, formats=_of_drawing),
}


def medium_of_file(format_: str) -> MediumName:
    """What an original is by the format of its file, as it was brought."""
    return "drawing" if format_ == "svg" else "picture"
