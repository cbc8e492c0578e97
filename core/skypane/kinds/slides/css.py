"""The CSS of slides, of what stands on them and of what moves them.

Without a script the slides are a row that is scrolled sideways and snaps (CSS Scroll Snap 1). The
script of the delivery says `data-on`; from then on controls show, and slides that fade or zoom lie
one on the other. All that it needs to know it reads from custom properties, so that each span has
its own values and a pane behaves as the delivered page does.
"""

from __future__ import annotations

from skypane.kinds.slides.row import (
    AROUND_PX,
    CONTROL_PX,
    change_s,
    n_controls,
    values_of,
)
from skypane.kinds.slides.values import SlidesValues
from skypane.layouts import SCRIPTED, Spot, column_and_row
from skypane.model import Place
from skypane.numerals import number, px
from skypane.widths.frame_css import height_css, standing_css, width_css
from skypane.widths.frames import frame_widths
from skypane.words.caption import ABOVE_PX, caption_css

#: What lies under captions and controls on a picture: white on it passes on any picture, for black
#: at this strength over white has a luminance that gives 5.7 : 1 (WCAG 2.2, 1.4.3 and 1.4.11).
_BEHIND = "rgb(0 0 0 / 0.6)"


def slides_css(spot: Spot) -> dict[str, dict[str, str]]:
    """Declarations of all but the pictures' frames, by what follows the placement's class."""
    return {**_box_css(spot), **_track_css(spot), **_caption_css(spot), **_controls_css(spot)}


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
