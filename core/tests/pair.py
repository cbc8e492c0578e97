"""A layout as trivial as can be, and all that it takes: two pictures side by side."""

import numpy as np
from skypane.layouts import Frame, Layout, known
from skypane.model import Finding, FullWidth
from skypane.values import Noun
from skypane.widths.frame_css import height_css
from skypane.widths.frames import Piece, frame_heights, frame_widths


@known
class Pair(Layout):
    kind = "pair"
    box = "div"
    least_parts = most_parts = 2

    class Values(Noun):
        gap_px: float | None = None

    def gap(self, spot):
        return spot.values.gap_px or 0.0

    def frame(self, spot, part):
        e, ratio = spot.cells[part][:2]
        page = frame_widths(FullWidth(), spot.viewports.widths, spot.container)
        W = (page[None, :] - self.gap(spot)) / 2
        H = frame_heights(e.height, W, spot.viewports.heights[1:2], ratio)
        return Frame(W, H, part * (W + self.gap(spot)), np.zeros_like(W))

    def pieces(self, spot, part):
        return [Piece(np.inf, 0.5, -self.gap(spot) / 2)]

    def rules(self, spot):
        gap = f"{self.gap(spot):g}px"
        return {"": {"display": "flex", "align-items": "flex-start", "gap": gap}}

    def frame_css(self, spot, part):
        e, natural = spot.cells[part].effective, spot.cells[part].natural
        half = f"calc((100% - {self.gap(spot):g}px) / 2)"
        return {"width": half, **height_css(e.height, natural), "background": e.background}

    def findings(self, spots):
        wide = [s.span.letter for s in spots if self.gap(s) > 100]
        if not wide:
            return []
        said = {"sentence": "The gap is wide.", "remedy": "Make it narrower."}
        return [
            Finding(rule="gap", severity="wrong", step="frame", part=0, spans=tuple(wide), **said)
        ]
