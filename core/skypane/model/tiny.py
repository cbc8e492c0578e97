"""A picture in a few px, of which something can be seen before its file is there."""

from __future__ import annotations

import base64
from typing import Annotated

from pydantic import Field, model_validator

from skypane.values import Noun

#: So many px at most; whatever stands in for a crop is made of these.
MOST_TINY_PX = 192


class Tiny(Noun):
    """The px of a whole picture, scaled down: `px` is Base64 (RFC 4648 §4) of red, green and blue,
    a byte each in sRGB, row by row from the top, `width_px` in a row."""

    width_px: Annotated[int, Field(ge=1, le=MOST_TINY_PX)]
    px: Annotated[str, Field(min_length=4, max_length=4 * MOST_TINY_PX)]

    @model_validator(mode="after")
    def _whole(self) -> Tiny:
        """Whole rows of px."""
        if not self.rgb or len(self.rgb) % (3 * self.width_px):
            raise ValueError("The px of a tiny picture have to fill its rows. Bring it again.")
        return self

    @property
    def rgb(self) -> bytes:
        """The px as bytes; none where they are not written in Base64."""
        try:
            return base64.b64decode(self.px, validate=True)
        except ValueError:
            return b""

    @property
    def height_px(self) -> int:
        return len(self.rgb) // (3 * self.width_px)

    @classmethod
    def of(cls, width_px: int, rgb: bytes) -> Tiny:
        """The tiny picture of these px."""
        return cls(width_px=width_px, px=base64.b64encode(rgb).decode())
