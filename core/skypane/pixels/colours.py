"""How many colours a picture has."""

from __future__ import annotations

import numpy as np
import pyvips

#: So many px tell enough of a picture that has many colours.
LOOKED_AT_PX = 200_000


def count(image: pyvips.Image, most: int) -> int:
    """How many different colours an 8-bit picture has, alpha counted as part of a colour; where
    they are more than `most`, some number above it."""
    px = image.numpy()
    px = px.reshape(image.height, image.width, -1).astype(np.uint32)
    packed = px[..., 0]
    for band in range(1, px.shape[2]):
        packed = (packed << 8) | px[..., band]
    step = max(1, packed.size // LOOKED_AT_PX)
    some = len(np.unique(packed[::step]))
    return some if some > most or step == 1 else len(np.unique(packed))
