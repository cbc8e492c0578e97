"""The one ratio for many pictures that loses least of them (rules §12)."""

from __future__ import annotations

from collections.abc import Sequence
from typing import NamedTuple

import numpy as np

from skypane.values import LEAST_SHARE, NOISE
from skypane.widths.frames import Floats


class Item(NamedTuple):
    """A picture: its ratio, width over height, and the hull of its keep areas as shares of width
    and height (0, 0 where nothing matters; less than an area can be is nothing)."""

    ratio: float
    keep_w: float = 0.0
    keep_h: float = 0.0

    @property
    def least(self) -> float:
        """The narrowest ratio that holds what matters."""
        return self.ratio * self.keep_w if self.keep_w >= LEAST_SHARE else 0.0

    @property
    def greatest(self) -> float:
        """The flattest ratio that holds what matters."""
        return self.ratio / self.keep_h if self.keep_h >= LEAST_SHARE else np.inf


class CommonRatio(NamedTuple):
    """`loss` is the mean share that is cut off, `cuts` the places of the items whose keep areas do
    not fit: none, where any ratio holds all of them."""

    ratio: float
    loss: float
    cuts: tuple[int, ...]


def losses(ratio: float, ratios: Floats) -> Floats:
    """The share of each picture that a frame of another ratio cuts off when it is filled."""
    return 1 - np.minimum(ratio / ratios, ratios / ratio)


def common_ratio(items: Sequence[Item]) -> CommonRatio | None:
    """The ratio of least mean loss among those that hold the keep areas of all items; where none
    does, among those that cut the fewest. None without items.

    Between two neighbouring bounds or own ratios the loss is a sum of straight and concave pieces:
    it is least at one of them.
    """
    if not items:
        return None
    a = np.array([i.ratio for i in items])
    least, greatest = (
        np.array([getattr(i, side) for i in items]) for side in ("least", "greatest")
    )
    tried = np.unique(np.concatenate([a, least[least > 0], greatest[np.isfinite(greatest)]]))
    held = (tried[:, None] >= least - NOISE) & (tried[:, None] <= greatest + NOISE)
    most = held.sum(axis=1) == held.sum(axis=1).max()
    found = [(float(losses(r, a).mean()), float(r)) for r in tried[most]]
    loss, ratio = min(found, key=lambda f: (round(f[0], 12), f[1]))
    cuts = np.flatnonzero(~held[int(np.flatnonzero(tried == ratio)[0])])
    return CommonRatio(ratio, loss, tuple(int(i) for i in cuts))


#: Ratios that differ by less are one: a row of px more or less, as cameras and crops have it.
ONE_RATIO = 0.01


def unlike_most(ratios: Sequence[float]) -> tuple[float, tuple[int, ...]]:
    """The ratio that most pictures have, the first of equals, and the places of those that have
    another."""
    own = np.array(ratios)
    alike = np.abs(own[None, :] / own[:, None] - 1) < ONE_RATIO
    most = int(alike.sum(axis=1).argmax())
    return ratios[most], tuple(int(i) for i in np.flatnonzero(~alike[most]))
