"""A small picture that is compressed as a large one is: squares from all over it, side by side.

What an encoder does to a place follows nearly from that place alone, so that the mean SSIM of the
squares at a quality is that of the whole, to within half a step of quality (measured on the demo's
photographs, with 200 squares: −ln(1 − SSIM) differs by 0.025 in the mean square).
"""

from __future__ import annotations

import numpy as np
import pyvips
from numpy.typing import NDArray

from skypane.pixels.likeness import WEIGHTS, WINDOW, Rows, luma, mean_similarity, opaque

#: Sides of a square in px: a whole number of blocks of every codec.
SQUARE = 32
#: So many squares are taken, of a small picture fewer: half of it at most.
SQUARES = 200
#: Below so many px a sample says too little.
FROM_PX = 150_000
#: Steps of a two-dimensional additive recurrence of low discrepancy (common practice: 1/g and 1/g²
#: of g³ = g + 1), by which squares lie unevenly in their cells and fall in step with nothing.
_STEP_X, _STEP_Y = 0.7548776662466927, 0.5698402909980532


class Sample:
    """The squares of one picture without transparency, side by side."""

    def __init__(self, picture: pyvips.Image) -> None:
        px = opaque(picture)
        height, width = px.shape[:2]
        count = min(SQUARES, width * height // (2 * SQUARE**2))
        # at least two by two, as an encoder asks for
        columns = max(2, round((count * width / height) ** 0.5))
        rows = max(2, round(count / columns))
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

    def to(self, other: Rows) -> float:
        """Mean SSIM, of windows that lie inside one square, of the luma of the same picture."""
        plane = other.between(0, other.shape[0])
        return mean_similarity(self._squares, _squares(plane), _BLUR)


def _squares(plane: NDArray[np.float32]) -> NDArray[np.float32]:
    """One by one, (number, rows, columns)."""
    rows, columns = (n // SQUARE for n in plane.shape)
    apart = plane.reshape(rows, SQUARE, columns, SQUARE).swapaxes(1, 2)
    return apart.reshape(-1, SQUARE, SQUARE)


#: The means of the windows inside a square, along one of its sides: (windows, px).
_BLUR = np.stack(
    [np.pad(WEIGHTS, (n, SQUARE - WINDOW - n)) for n in range(0, SQUARE - WINDOW + 1, 3)]
)
