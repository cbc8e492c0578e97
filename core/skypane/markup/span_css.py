"""What the frame and the picture of a part need in one span, as declarations."""

from __future__ import annotations

from skypane.files.blurred import blurred_url, part_of
from skypane.geometry import WHOLE, Rect
from skypane.markup.aim import axis_position, percent
from skypane.model import FixedAim
from skypane.shown.nouns import ShownSpan, SpanPlan
from skypane.values import Noun, once


class SpanCss(Noun):
    """Declarations of one span, before what does not change is left out."""

    frame: dict[str, str]
    img: dict[str, str]
    # of the img too, for browsers with container units; `img` has percentages for all others
    exact: dict[str, str] = {}
    held_by: tuple[str, ...] = ()

    @property
    def position(self) -> str:
        """`object-position` as current browsers take it."""
        return self.exact.get("object-position", self.img["object-position"])


def span_css(p: SpanPlan, cut: Rect, blurred: bool = False) -> SpanCss:
    """What the frame and the picture of a part need in one span. `cut`: what the file carries of
    the crop, WHOLE for all of it. `blurred`: something of the picture lies behind it until its file
    is there."""
    return _behind(p, cut) if blurred else _span_css(p, cut)


@once
def _behind(p: SpanPlan, cut: Rect) -> SpanCss:
    css = _span_css(p, cut)
    url = blurred_url(p.original, part_of(p.crop, cut)) if isinstance(p, ShownSpan) else None
    colour = css.frame.get("background")
    if url is None or colour is None:
        return css
    # lengths of the frame cannot place what lies on the frame itself; blurred, nobody sees by how
    # much per cents miss
    placed = f'url("{url}") {css.img["object-position"]} / {css.img["object-fit"]} no-repeat'
    behind = placed if colour == "none" else f"{colour} {placed}"
    return css.model_copy(update={"frame": {**css.frame, "background": behind}})


@once
def _span_css(p: SpanPlan, cut: Rect) -> SpanCss:
    e, frame = p.effective, p.layout.frame_css(p.spot, p.index)
    img = {"object-fit": e.fit, "object-position": "50% 50%"}
    if not isinstance(p, ShownSpan):
        return SpanCss(frame=frame, img=img)
    if e.fit == "contain":
        if isinstance(e.aim, FixedAim):
            img["object-position"] = f"{percent(e.aim.x)} {percent(e.aim.y)}"
        return SpanCss(frame=frame, img=img)
    x = axis_position("x", p.picture, p.inside, e.aim, cut, p.binding["x"])
    y = axis_position("y", p.picture, p.inside, e.aim, cut, p.binding["y"])
    img["object-position"] = f"{x.percent} {y.percent}"
    exact = {**x.drawn, **y.drawn}
    position = f"{x.css} {y.css}"
    if position != img["object-position"]:
        exact["object-position"] = position
    held_by = tuple(dict.fromkeys((*x.held_by, *y.held_by)))
    return SpanCss(frame=frame, img=img, exact=exact, held_by=held_by)


def cut_of(p: SpanPlan) -> Rect:
    """What the file of a span carries of the crop."""
    return p.cut_inside if isinstance(p, ShownSpan) else WHOLE
