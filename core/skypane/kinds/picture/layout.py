"""One picture that fills its frame."""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np

from skypane.layouts import (
    Box,
    Frame,
    Handle,
    Layout,
    Spot,
    box_left,
    height_handles,
    known,
    width_handles,
)
from skypane.widths.frame_css import height_css, standing_css, width_css
from skypane.widths.frames import (
    Piece,
    depends_on_viewport_height,
    frame_heights,
    frame_widths,
    width_pieces,
)


@known
class Picture(Layout):
    kind = "picture"
    decorates = True

    def frame(self, spot: Spot, part: int) -> Frame:
        e, ratio = spot.cells[part][:2]
        heights = spot.viewports.heights
        vh = heights if depends_on_viewport_height(e.height) else heights[1:2]
        W = np.broadcast_to(
            frame_widths(e.width, spot.page_widths, spot.container), vh.shape
        ).copy()
        corner = np.zeros_like(W)
        return Frame(W, frame_heights(e.height, W, vh, ratio), corner, corner)

    def handles(self, spot: Spot) -> Iterable[Handle]:
        def box(s: Spot) -> Box:
            found, left = self.frame(s, 0), box_left(s)
            return left, 0.0, left + float(found.W[0, 0]), float(found.H[0, 0])

        return [*height_handles(spot, 0, box), *width_handles(spot, box)]

    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        return width_pieces(spot.cells[part].effective.width, spot.container)

    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        e, natural = spot.cells[part].effective, spot.cells[part].natural
        widths = frame_widths(e.width, spot.page_widths, spot.container)
        # where it stands matters only where it is narrower than the page
        fills = (widths >= spot.page_widths - 0.01).all()
        return {
            "display": "none" if e.show == "nothing" else "block",
            "width": width_css(e.width, spot.container),
            "margin-inline": "0" if fills else standing_css(e.stands, e.width, spot.container),
            **height_css(e.height, natural),
            "background": e.background,
        }
