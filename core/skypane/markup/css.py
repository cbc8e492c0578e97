"""The CSS that frames and aims a picture.

It repeats the media conditions of the markup, so that picture and frame always change at the same
width, fractional widths included.
"""

from __future__ import annotations

from skypane.geometry import WHOLE, Region
from skypane.markup.aim import AxisPosition, axis_position, percent
from skypane.markup.frame import height_css, standing_css, width_css
from skypane.markup.lines import Line
from skypane.model import FixedAim, Placement, Site
from skypane.shown.plan import SpanPlan, crop_of
from skypane.values import Noun
from skypane.widths.conditions import in_testing_order, lower_condition, upper_condition


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


def span_css(site: Site, plan: SpanPlan, cut: Region) -> SpanCss:
    """What the frame and the picture of one span need. `cut`: what the file carries of the crop,
    WHOLE for all of it.

    Worked out once per plan and cut.
    """
    known: dict[Region, SpanCss] = plan.__dict__.setdefault("_css", {})
    if cut not in known:
        known[cut] = _span_css(site, plan, cut)
    return known[cut]


def _span_css(site: Site, plan: SpanPlan, cut: Region) -> SpanCss:
    e = plan.effective
    natural = (16, 9)
    if plan.original:
        crop = crop_of(plan.original, plan.crop)
        natural = (crop.w, crop.h)
    frame = {
        "display": "none" if e.show == "nothing" else "block",
        "width": width_css(e.width, site.container),
        "margin-inline": _standing(site, plan),
        **height_css(e.height, natural),
        "background": e.background,
    }
    img = {"object-fit": e.fit, "object-position": "50% 50%"}
    if plan.picture is None or plan.inside is None:
        return SpanCss(frame=frame, img=img)
    if e.fit == "contain":
        if isinstance(e.aim, FixedAim):
            img["object-position"] = f"{percent(e.aim.x)} {percent(e.aim.y)}"
        return SpanCss(frame=frame, img=img)
    x: AxisPosition = axis_position("x", plan.picture, plan.inside, e.aim, cut, plan.held["x"])
    y: AxisPosition = axis_position("y", plan.picture, plan.inside, e.aim, cut, plan.held["y"])
    img["object-position"] = f"{x.percent} {y.percent}"
    exact = dict(axis.drawn.split(": ", 1) for axis in (x, y) if axis.drawn)
    position = f"{x.css} {y.css}"
    if position != img["object-position"]:
        exact["object-position"] = position
    return SpanCss(
        frame=frame, img=img, exact=exact, held_by=tuple(dict.fromkeys((*x.held_by, *y.held_by)))
    )


def _standing(site: Site, plan: SpanPlan) -> str:
    """Where the frame stands, needed only where it is narrower than the page."""
    if (plan.W >= plan.viewport_w - 0.01).all():
        return "0"
    return standing_css(plan.effective.stands, plan.effective.width, site.container)


_FIXED_FRAME = {"position": "relative", "overflow": "hidden"}
_FIXED_IMG = {"position": "absolute", "inset": "0", "width": "100%", "height": "100%"}
_NEUTRAL = {
    "margin-inline": "0",
    "min-height": "0",
    "max-height": "none",
    "aspect-ratio": "auto",
    "height": "auto",
}


def css_lines(
    site: Site, placement: Placement, plans: tuple[SpanPlan, ...], *, whole: bool = False
) -> tuple[Line, ...]:
    """The CSS of a placement. `whole`: for whole crops instead of the cut files; both show the
    same.

    The block without a condition is the span that is tested last; the others follow so that later
    ones win. Lengths that need container units stand in `@supports` with a percentage before it: a
    value with `var()` is valid while it is read, so that a browser without those units would not
    fall back to an earlier declaration (CSS Variables 1, §3.1) but to 50 % 50 %.
    """
    name = placement.called
    blocks = {p.span.letter: span_css(site, p, WHOLE if whole else p.cut_inside) for p in plans}
    ordered = list(reversed(in_testing_order(tuple(p.span for p in plans), site.media_style)))
    sized = any(css.exact for css in blocks.values())
    idle = {
        k for k, v in _NEUTRAL.items() if all(css.frame.get(k, v) == v for css in blocks.values())
    }
    lines: list[Line] = []
    before_frame: dict[str, str] = {}
    before_img: dict[str, str] = {}
    before_exact: dict[str, str] = {}
    for i, span in enumerate(ordered):
        css = blocks[span.letter]
        frame = {k: v for k, v in css.frame.items() if k not in idle}
        img = dict(css.img)
        if i == 0:
            frame = {**_FIXED_FRAME, **({"container-type": "size"} if sized else {}), **frame}
            img = {**_FIXED_IMG, **img}
        changed_frame = {k: v for k, v in frame.items() if before_frame.get(k) != v}
        changed_img = {k: v for k, v in img.items() if before_img.get(k) != v}
        if before_exact and not css.exact:  # the percentage has to win over the length before it
            changed_img["object-position"] = img["object-position"]
        changed_exact = (
            css.exact if css.exact != before_exact or "object-position" in changed_img else {}
        )
        before_frame, before_img, before_exact = (
            {**before_frame, **frame},
            {**before_img, **img},
            css.exact,
        )
        rules: list[str] = []
        if changed_frame:
            rules += _rule(f".{name}", [f"{k}: {v};" for k, v in changed_frame.items()])
        if changed_img:
            rules += _rule(f".{name} img", [f"{k}: {v};" for k, v in changed_img.items()])
        if changed_exact:
            declarations = (
                [f"/* held by {_commented(', '.join(css.held_by))} */"] if css.held_by else []
            )
            declarations += [f"{k}: {v};" for k, v in changed_exact.items()]
            rules += [
                f"@supports ({_NEEDED}) {{",
                *(f"  {r}" for r in _rule(f".{name} img", declarations)),
                "}",
            ]
        if not rules:
            continue
        letters = (span.letter,)
        if i == 0:
            lines += [Line(text=r, spans=letters) for r in rules]
        else:
            condition = (
                lower_condition(span.first)
                if site.media_style == "min-width"
                else upper_condition(span.last, site.media_style)
            )
            lines.append(Line(text=f"@media {condition} {{", spans=letters))
            lines += [Line(text=f"  {r}", spans=letters) for r in rules]
            lines.append(Line(text="}", spans=letters))
    return tuple(lines)


#: What a browser has to know for lengths that are exact at every width.
_NEEDED = "width: 1cqw"


def _commented(text: str) -> str:
    """Text that cannot end a CSS comment."""
    return text.replace("*/", "* /")


def _rule(selector: str, declarations: list[str]) -> list[str]:
    return [f"{selector} {{", *(f"  {d}" for d in declarations), "}"]
