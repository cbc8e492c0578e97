"""Pictures that take turns in one place: the kind, and the frames of its slides."""

from __future__ import annotations

from collections.abc import Iterable, Sequence

import numpy as np
from pydantic import JsonValue

from skypane.kinds.slides.css import slides_css
from skypane.kinds.slides.handles import handles_of
from skypane.kinds.slides.row import controls_on, loop_s, row_of, stops_of, values_of
from skypane.kinds.slides.values import SlidesValues
from skypane.layouts import Frame, Handle, Many, Spot, known
from skypane.model import Placement, Site
from skypane.numerals import number
from skypane.widths.frame_css import height_css
from skypane.widths.frames import Floats, Piece, frame_widths
from skypane.widths.lines import straight_lines
from skypane.widths.spans import spans_of
from skypane.widths.sums import figure


@known
class Slides(Many):
    kind = "slides"
    Values = SlidesValues
    lies_on = "Controls"
    width_word = "Slide width"
    box = "section"
    cell = "div"
    one, all_ = "slide", "slideshow"
    of_all = ("width", "stands", "height")

    def begin(self, site: Site, placement: Placement) -> Placement:
        """Controls under the picture where it is narrow, on it above that (common practice)."""
        spans = spans_of(site)
        layout: dict[str, dict[str, JsonValue]] = {}
        if len(spans) > 1:
            layout = {
                spans[1].letter: {"controls_lie": "on"},
                spans[0].letter: {"controls_lie": "under"},
            }
        return super().begin(site, placement).model_copy(update={"layout": layout})

    def word(self, spot: Spot) -> str:
        v = values_of(spot)
        return f"{v.at_a_time} at a time" if v.at_a_time > 1 else ""

    def notes(self, spot: Spot) -> tuple[str, ...]:
        v, stops = values_of(spot), stops_of(spot)
        if stops < 2:
            return (
                "It never moves: all slides show at once."
                if len(spot.shown) > 1
                else "It never moves: there is one slide.",
            )
        if not v.by_itself:
            return ()
        sum_ = f"{stops} × {number(v.every_s)} s"
        whole = f"{number(round(loop_s(spot), 2))} s"
        if v.loop:
            return (f"A loop takes {whole}: {sum_}.",)
        return (f"It comes to rest on the last slide, after less than {whole}: {sum_}.",)

    def box_around(self, spot: Spot, frame_px: float) -> float:
        v = values_of(spot)
        return v.at_a_time * frame_px + (v.at_a_time - 1) * v.gutter_px

    def lying(self, spot: Spot, part: int, high: Floats) -> Frame | None:
        box = controls_on(spot, high)
        if box is None:
            return None
        column = spot.shown.index(part) % values_of(spot).at_a_time
        return box._replace(x=box.x - column * (row_of(spot).slide + values_of(spot).gutter_px))

    def first_seen(self, spot: Spot, part: int, frames: Sequence[Frame]) -> bool:
        return part in spot.shown[: values_of(spot).at_a_time]

    def frame(self, spot: Spot, part: int) -> Frame:
        return self.frames(spot)[part]

    def frames(self, spot: Spot) -> Sequence[Frame]:
        row, v = row_of(spot), values_of(spot)
        zero = np.zeros((1, len(spot.viewports.widths)))
        out = [Frame(zero, zero, zero, zero)] * len(spot.cells)
        for at, i in enumerate(spot.shown):
            H = spot.frame_heights(i, row.slide)
            x = at * (row.slide + v.gutter_px)
            out[i] = Frame(np.broadcast_to(row.slide, H.shape), H, x + 0 * H, 0 * H)
        return out

    def handles(self, spot: Spot) -> Iterable[Handle]:
        return handles_of(spot)

    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        return straight_lines(spot.viewports.widths, self.frame(spot, part).W[0])

    def width_sum(self, spot: Spot, part: int, viewport_px: float) -> str:
        v, sums = values_of(spot), [super().width_sum(spot, part, viewport_px)]
        if v.at_a_time > 1:
            at = np.array([viewport_px - spot.scrollbar_px])
            box = float(frame_widths(spot.cells[0].effective.width, at, spot.container)[0])
            n, taken = v.at_a_time, (v.at_a_time - 1) * v.gutter_px
            gutters = f" − {n - 1}·{figure(v.gutter_px)}" if v.gutter_px else ""
            whole = f"({figure(box)}{gutters})" if gutters else figure(box)
            sums.append(f"{whole}/{n} = {figure((box - taken) / n)}")
        return "; ".join(sums)

    def rules(self, spot: Spot) -> dict[str, dict[str, str]]:
        return slides_css(spot)

    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        e = spot.cells[part].effective
        return {
            "display": "none" if e.show == "nothing" else "block",
            "width": "100%",
            **height_css(e.height, spot.cells[part].natural),
            "background": e.background,
        }
