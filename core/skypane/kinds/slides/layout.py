"""Pictures that take turns in one place: the kind, where its slides and its controls are, and its
CSS.

Without a script the slides are a row that is scrolled sideways and snaps (CSS Scroll Snap 1). The
script of the delivery says `data-on`; from then on controls show, and slides that fade or zoom lie
one on the other. All that it needs to know it reads from custom properties, so that each span has
its own values and a pane behaves as the delivered page does.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from typing import NamedTuple, cast

import numpy as np
from pydantic import JsonValue

from skypane.kinds.slides.values import SlidesValues
from skypane.layouts import SCRIPTED, Frame, Many, OfLayout, Spot, column_and_row, known
from skypane.model import Place, Placement, Site
from skypane.numerals import number, px
from skypane.widths.frame_css import height_css, standing_css, width_css
from skypane.widths.frames import (
    Floats,
    Piece,
    frame_widths,
)
from skypane.widths.lines import straight_lines
from skypane.widths.spans import spans_of
from skypane.widths.sums import said as said_px
from skypane.words.caption import ABOVE_PX, caption_css

#: The side of a control in CSS px: more than the 24 that WCAG 2.2, 2.5.8 asks for; and the room
#: around all of them.
CONTROL_PX, AROUND_PX = 36.0, 12.0
#: What lies under captions and controls on a picture: white on it passes on any picture, for black
#: at this strength over white has a luminance that gives 5.7 : 1 (WCAG 2.2, 1.4.3 and 1.4.11).
_BEHIND = "rgb(0 0 0 / 0.6)"


def values_of(spot: Spot) -> SlidesValues:
    return cast(SlidesValues, spot.values)


class Row(NamedTuple):
    """Widths of the box and of one slide in it, in CSS px, (widths,)."""

    box: Floats
    slide: Floats


def row_of(spot: Spot) -> Row:
    """Raises InvalidPlan where the gutters leave no slide."""
    v = values_of(spot)
    box = frame_widths(spot.cells[0].effective.width, spot.page_widths, spot.container)
    slide = (box - (v.at_a_time - 1) * v.gutter_px) / v.at_a_time
    narrow = np.flatnonzero(slide < 1)
    if narrow.size and spot.shown and v.at_a_time > 1:
        at = int(narrow[0])
        taken = (v.at_a_time - 1) * v.gutter_px
        raise OfLayout(
            f"{v.at_a_time} slides at a time do not fit at {int(spot.viewports.widths[at])} px,"
            f" span {spot.span.letter}: gutters take {number(taken)} px of"
            f" {number(round(float(box[at]), 1))}. Show fewer there, or less between them.",
            field="at_a_time",
        )
    return Row(box, slide)


def stops_of(spot: Spot) -> int:
    """How many places a slideshow stands still at in a span: it moves by as many slides as show."""
    return math.ceil(len(spot.shown) / values_of(spot).at_a_time)


def loop_s(spot: Spot) -> float:
    """How long a slideshow takes from the first slide to the first again, in seconds."""
    v = values_of(spot)
    return stops_of(spot) * v.every_s


def change_s(v: SlidesValues) -> float:
    return 0.0 if v.change == "none" else v.change_s


def n_controls(spot: Spot) -> int:
    v, stops = values_of(spot), stops_of(spot)
    if stops < 2:
        return 0
    listed = {"dots": stops, "numbers": stops, "arrows": 2, "none": 0}[v.controls]
    return listed + (1 if v.by_itself else 0)


def controls_on(spot: Spot, high: Floats) -> Frame | None:
    """The controls where they lie on slides that are `high` CSS px, (heights, widths), from the
    row's top left corner; None where none do."""
    v, n = values_of(spot), n_controls(spot)
    if v.controls_lie != "on" or not n:
        return None
    box = np.broadcast_to(row_of(spot).box, high.shape)
    room = np.maximum(box - 2 * AROUND_PX, CONTROL_PX)
    in_a_row = np.minimum(n, np.floor(room / CONTROL_PX))
    w, h = in_a_row * CONTROL_PX, np.ceil(n / in_a_row) * CONTROL_PX
    across, down = column_and_row(v.controls_place)
    x = AROUND_PX + across * (box - 2 * AROUND_PX - w)
    return Frame(w, h, x, AROUND_PX + down * (high - 2 * AROUND_PX - h))


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

    def told(self, spot: Spot) -> tuple[str, ...]:
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

    def pieces(self, spot: Spot, part: int) -> list[Piece]:
        return straight_lines(spot.viewports.widths, self.frame(spot, part).W[0])

    def width_sum(self, spot: Spot, part: int, viewport_px: float) -> str:
        v, sums = values_of(spot), [super().width_sum(spot, part, viewport_px)]
        if v.at_a_time > 1:
            at = np.array([viewport_px - spot.scrollbar_px])
            box = float(frame_widths(spot.cells[0].effective.width, at, spot.container)[0])
            n, taken = v.at_a_time, (v.at_a_time - 1) * v.gutter_px
            gutters = f" − {n - 1}·{said_px(v.gutter_px)}" if v.gutter_px else ""
            whole = f"({said_px(box)}{gutters})" if gutters else said_px(box)
            sums.append(f"{whole}/{n} = {said_px((box - taken) / n)}")
        return "; ".join(sums)

    def rules(self, spot: Spot) -> dict[str, dict[str, str]]:
        return {**_box_css(spot), **_track_css(spot), **_caption_css(spot), **_controls_css(spot)}

    def frame_css(self, spot: Spot, part: int) -> dict[str, str]:
        e = spot.cells[part].effective
        return {
            "display": "none" if e.show == "nothing" else "block",
            "width": "100%",
            **height_css(e.height, spot.cells[part].natural),
            "background": e.background,
        }


def _each(v: SlidesValues) -> str:
    """The width of one slide as CSS."""
    if v.at_a_time == 1:
        return "100%"
    share = f"100% / {v.at_a_time}"
    taken = v.gutter_px * (v.at_a_time - 1) / v.at_a_time
    return f"calc({share} - {px(round(taken, 4))})" if taken else f"calc({share})"


def _seconds(s: float) -> str:
    return f"{number(s)}s"


def _box_css(spot: Spot) -> dict[str, dict[str, str]]:
    v, e = values_of(spot), spot.cells[0].effective
    widths = frame_widths(e.width, spot.page_widths, spot.container)
    fills = (widths >= spot.page_widths - 0.01).all()
    return {
        "": {
            "box-sizing": "border-box",
            "position": "relative",
            "display": "grid" if spot.shown else "none",
            "grid-template-columns": "minmax(0, 1fr)",
            "width": width_css(e.width, spot.container),
            "margin-inline": "0" if fills else standing_css(e.stands, e.width, spot.container),
            "--at-a-time": str(v.at_a_time),
            "--change": v.change,
            "--change-time": _seconds(change_s(v)),
            "--by-itself": "yes" if v.by_itself else "no",
            "--pause": _seconds(round(v.pause_s, 3)),
            "--loop": "yes" if v.loop else "no",
            "--swipe": "yes" if v.swipe else "no",
        }
    }


def _track_css(spot: Spot) -> dict[str, dict[str, str]]:
    """The row of slides. Where they lie one on the other they stay boxes of the row and are only
    drawn over the first: what is moved by `translate` is no layout shift when the script begins
    (Layout Instability §2.1)."""
    v, stacked = values_of(spot), values_of(spot).is_stacked
    by_hand = "pan-y pinch-zoom" if stacked or not v.swipe else "auto"
    moved = "opacity var(--change-time), transform var(--change-time)"
    over = {"visibility": "hidden", "opacity": "0"} if stacked else {}
    step = f"(100% + {px(v.gutter_px)})" if v.gutter_px else "100%"
    on_the_first = f"calc(var(--at, 0) * var(--way) * {step}) 0" if stacked else "none"
    places = dict(zip(spot.shown, range(len(spot.shown)), strict=True))
    return {
        " > [data-slides]": {
            "grid-area": "1 / 1",
            "display": "flex",
            "gap": px(v.gutter_px),
            "overflow-x": "auto",
            "scroll-snap-type": "x mandatory",
            # nothing in it comes before the controls
            "isolation": "isolate",
            "--way": "-1",
        },
        " > [data-slides]:dir(rtl)": {"--way": "1"},
        # with a script there are controls; without, the bar says that there is more
        f"{SCRIPTED} > [data-slides]": {"scrollbar-width": "none"},
        **{
            f" > [data-slides] > :nth-child({i + 1})": {
                "display": "none" if c.effective.show == "nothing" else "revert",
                "--at": str(places.get(i, 0)) if stacked else "0",
            }
            for i, c in enumerate(spot.cells)
        },
        " > [data-slides] > *": {
            "flex": f"0 0 {_each(v)}",
            "min-width": "0",
            "scroll-snap-align": "start",
        },
        "[data-on] > [data-slides]": {
            "overflow": "clip" if stacked else "auto hidden" if v.swipe else "hidden",
            "scrollbar-width": "none",
            "touch-action": by_hand,
        },
        "[data-on] > [data-slides] > *": {
            "opacity": "1",
            "visibility": "visible",
            **over,
            "transform": "scale(0.9)" if v.change == "zoom" else "none",
            # what is left stays until the next one, which lies on it, is there
            "transition": "all 0s linear var(--change-time)" if stacked else "none",
        },
        # a picture that nobody is about to see stays beside what is clipped: it is not fetched yet
        "[data-on] > [data-slides] > [data-near]": {"translate": on_the_first},
        "[data-on] > [data-slides] > [data-now]": {
            "opacity": "1",
            "visibility": "visible",
            "transform": "none",
            "z-index": "1",
            "transition": moved if stacked else "none",
        },
        " figure": {"margin": "0", "position": "relative"},
    }


def _caption_css(spot: Spot) -> dict[str, dict[str, str]]:
    if not any(c.item and c.item.has_caption for c in spot.cells):
        return {}
    v, out = values_of(spot), caption_css(spot.typeface, values_of(spot))
    on = v.captions_lie == "on"
    down = column_and_row(v.controls_place)[1] == 1 and v.controls_lie == "on"
    room = CONTROL_PX + 2 * AROUND_PX if down and n_controls(spot) else AROUND_PX
    out[" figcaption"] |= {
        "position": "absolute" if on else "static",
        "inset": "auto 0 0",
        "padding": f"{px(AROUND_PX)} {px(AROUND_PX)} {px(room)}" if on else "0",
        "color": "#fff" if on else "inherit",
        "background": _BEHIND if on else "none",
    }
    out[" figcaption > :first-child"] = {"margin-top": "0" if on else px(ABOVE_PX)}
    return out


_SIDES = {0.0: "start", 0.5: "center", 1.0: "end"}


def _placed(place: Place, on: bool) -> str:
    across, down = column_and_row(place)
    return f"{_SIDES[down] if on else 'start'} {_SIDES[across]}"


def _controls_css(spot: Spot) -> dict[str, dict[str, str]]:
    v, n = values_of(spot), n_controls(spot)
    on, listed = v.controls_lie == "on", v.controls in ("dots", "numbers") and n > 0
    e, dots = spot.cells[0].effective, v.controls == "dots"
    return {
        " > [data-controls]": {
            "grid-area": "1 / 1" if on else "2 / 1",
            "display": "grid" if n else "none",
            # as wide as the slides, whatever their least height would make of the ratio
            "grid-template-columns": "minmax(0, 1fr)",
            "align-content": "start",
            "align-items": "start",
            "z-index": "1",
            "pointer-events": "none",
            "visibility": "hidden",
            "color": "#fff" if on else "inherit",
        },
        "[data-on] > [data-controls]": {"visibility": "visible"},
        # as high as the picture, without its caption
        " > [data-controls]::before": {
            "content": '""',
            "grid-area": "1 / 1",
            "display": "block" if on else "none",
            "width": _each(v),
            **height_css(e.height, spot.cells[0].natural),
        },
        " > [data-controls] > *": {
            "grid-area": "1 / 1",
            "display": "flex",
            "flex-wrap": "wrap",
            "place-self": _placed(v.controls_place, on),
            "margin": px(AROUND_PX) if on else "8px 0",
            "border-radius": px(CONTROL_PX / 2),
            "background": _BEHIND if on else "none",
            "pointer-events": "auto",
        },
        " [data-controls] button": {
            "display": "none",
            "place-items": "center",
            "width": px(CONTROL_PX),
            "height": px(CONTROL_PX),
            "padding": "0",
            "border": "0",
            "border-radius": "50%",
            "background": "none",
            "color": "inherit",
            "font": "600 15px/1 sans-serif",
            "cursor": "pointer",
        },
        " [data-controls] button:focus-visible": {
            "outline": "3px solid currentColor",
            "outline-offset": "-3px",
        },
        " [data-controls] span": {"display": "contents"},
        " [data-controls] [data-moves]": {"display": "grid" if v.by_itself and n else "none"},
        " [data-controls] [data-by]": {
            "display": "grid" if v.controls == "arrows" and n else "none"
        },
        " [data-controls] [data-to]": {
            "display": "grid" if listed else "none",
            "font-size": "0" if dots else "15px",
        },
        " [data-controls] [hidden]": {"display": "none"},
        " [data-controls] [data-to]::before": {
            "content": '""' if dots else "none",
            "box-sizing": "border-box",
            "width": "14px",
            "height": "14px",
            "border": "2px solid currentColor",
            "border-radius": "50%",
        },
        " [data-controls] [aria-current=true]::before": {"background": "currentColor"},
        " [data-controls] [aria-current=true]": {
            "text-decoration": "none" if dots else "underline 2px",
            "text-underline-offset": "4px",
        },
        # two bars, or a triangle where it stands still
        " [data-controls] [data-moves]::before": {
            "content": '""',
            "box-sizing": "border-box",
            "width": "13px",
            "height": "14px",
            "border": "solid currentColor",
            "border-width": "0 4px",
        },
        "[data-rests] [data-moves]::before": {
            "border-width": "7px 0 7px 13px",
            "border-color": "transparent transparent transparent currentColor",
        },
        " [data-controls] [data-by]::before": {
            "content": '""',
            "width": "9px",
            "height": "9px",
            "border": "solid currentColor",
            "border-width": "3px 3px 0 0",
            "rotate": "45deg",
        },
        " [data-controls] [data-by='-1']::before": {"rotate": "-135deg"},
    }
