"""A kind that is as rich as any, and all that it takes: two pictures side by side, each over its
own caption, which must not drift apart."""

from typing import Literal

import numpy as np
from skypane.findings.rule import rule
from skypane.layouts import Frame, Layout, known
from skypane.markup.elements import element
from skypane.markup.items import figure
from skypane.markup.own import writes
from skypane.model import FullWidth
from skypane.reading.nouns import Band, OwnReading, complete
from skypane.reading.own import reads
from skypane.values import Noun
from skypane.widths.curves import Curve
from skypane.widths.frame_css import height_css
from skypane.widths.frames import Piece, frame_heights, frame_widths
from skypane.widths.runs import merged, runs_of

TOO_WIDE_PX = 100.0


@known
class Pair(Layout):
    kind = "pair"
    box = "div"
    cell = "div"
    has_items = True
    least_parts = most_parts = 2

    class Values(Noun):
        gap_px: float | None = None

    def gap(self, spot):
        return spot.values.gap_px or 0.0

    def texts(self, placement):
        return tuple((p.item.title, 700) for p in placement.parts if p.item and p.item.title)

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
        half = f"calc((100% - {gap}) / 2)"
        return {
            "": {"display": "flex", "align-items": "flex-start", "gap": gap},
            " figure": {"margin": "0", "width": half},
        }

    def frame_css(self, spot, part):
        e, natural = spot.cells[part].effective, spot.cells[part].natural
        frame = {"display": "block", "width": "100%", **height_css(e.height, natural)}
        return {**frame, "background": e.background}


@rule("gap", "wrong", "frame", "Make it narrower.", at="gap_px", kind="pair")
def gap(case):
    """Two pictures so far apart that they are no pair."""
    wide = tuple(s.span.letter for s in case.plan.spots if (s.values.gap_px or 0) > TOO_WIDE_PX)
    if wide and not case.part.index:
        yield wide, "The gap is wide."


@writes("pair")
def pair_elements(plan, pictures):
    both = zip(plan.placement.parts, pictures, strict=True)
    figures = [figure(part.item, picture) for part, picture in both]
    return [element("div", {"class": plan.placement.called}, figures)]


class PairReading(OwnReading):
    """How far apart the two stand in each span, in CSS px."""

    kind: Literal["pair"] = "pair"
    gaps: dict[str, float]


@reads("pair")
def pair_reading(plan, originals, pixels):
    gaps = {s.span.letter: plan.layout.gap(s) for s in plan.spots}
    runs = []
    for spot in plan.spots:
        over = np.full(len(spot.viewports.widths), gaps[spot.span.letter] - TOO_WIDE_PX)
        runs += runs_of(spot.viewports.widths, np.where(over > 0, "grows", "fits"), -over)
    band = Band(
        kind="fits",
        id="pair-holds",
        name="Pair holds",
        wrong="too far apart",
        runs=merged(runs),
        curve=Curve(points=()),
    )
    return PairReading(gaps=gaps, bands=(band,))


complete()
