"""A small picture that is compressed as a large one is: squares from all over it, side by side.

What an encoder does to a place follows nearly from that place alone, so that the mean SSIM of the
squares at a quality is that of the whole, to within half a step of quality (measured on the demo's
photographs, with 200 squares).
"""

from __future__ import annotations

import numpy as np
import pyvips
from numpy.typing import NDArray

from skypane.pixels.likeness import WEIGHTS, WINDOW, Luma, luma, mean_similarity, opaque

#: Sides of a square in px: a whole number of blocks of every codec.
SQUARE = 32
#: So many squares are taken.
SQUARES = 200
#: Below so many px a picture is as quickly tried itself.
FROM_PX = 500_000
#: Steps of a two-dimensional additive recurrence of low discrepancy (common practice: 1/g and 1/g²
#: of g³ = g + 1), by which squares lie unevenly in their cells and fall in step with nothing.
_STEP_X, _STEP_Y = 0.7548776662466927, 0.5698402909980532


class Sample:
    """The squares of one picture without transparency, side by side."""

    def __init__(self, picture: pyvips.Image) -> None:
        px = opaque(picture)
        height, width = px.shape[:2]
        columns = max(1, round((SQUARES * width / height) ** 0.5))
        rows = max(1, round(SQUARES / columns))
        joined = np.empty((rows * SQUARE, columns * SQUARE, px.shape[2]), np.uint8)
        for n in range(rows * columns):
            row, column = divmod(n, columns)
            x = int((column + (0.5 + n * _STEP_X) % 1) * (width - SQUARE) / columns)
            y = int((row + (0.5 + n * _STEP_Y) % 1) * (height - SQUARE) / rows)
            to = np.s_[row * SQUARE : (row + 1) * SQUARE, column * SQUARE : (column + 1) * SQUARE]
            joined[to] = px[y : y + SQUARE, x : x + SQUARE]
        self.picture = pyvips.Image.new_from_array(joined).copy(
            interpretation=picture.interpretation
        )
        self._squares = _squares(luma(self.picture))

    def to(self, other: Luma) -> float:
        """Mean SSIM, of windows that lie inside one square, of the luma of the same picture."""
        return mean_similarity(self._squares, _squares(other), _BLUR)


def _squares(plane: Luma) -> NDArray[np.float32]:
    """One by one, (number, rows, columns)."""
    rows, columns = (n // SQUARE for n in plane.shape)
    apart = plane.reshape(rows, SQUARE, columns, SQUARE).swapaxes(1, 2)
    return apart.reshape(-1, SQUARE, SQUARE).astype(np.float32)


#: The means of the windows inside a square, along one of its sides: (windows, px).
_BLUR = np.stack(
    [np.pad(WEIGHTS, (n, SQUARE - WINDOW - n)) for n in range(0, SQUARE - WINDOW + 1, 3)]
)
