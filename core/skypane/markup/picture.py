"""The `picture` element of a placement and the CSS that frames and aims it.

HTML Standard §4.8.1–4.8.4 (picture, source, img). Sources stand in the order in which they have to be tested, by span and within a
span by format, most modern first; every source lists all its densities, its type and the px size of its files. The CSS repeats
the same media conditions, so that picture and frame always change at the same width, fractional widths included.
"""

from __future__ import annotations

import html
from collections.abc import Callable, Mapping
from typing import NamedTuple

from skypane.fit import WHOLE, AxisPosition, Region, axis_position, percent
from skypane.frames import height_css, standing_css, width_css
from skypane.model import FixedAim, Noun, Original, Placement, Rect, Rendition, Site
from skypane.needs import Group, SpanPlan, crop_of
from skypane.spans import Span, conditions, in_testing_order, lower_condition, upper_condition

TYPES = {"avif": "image/avif", "webp": "image/webp", "jpeg": "image/jpeg", "png": "image/png"}


class Line(Noun):
    """A line of code and the letters of the spans that it serves (none: all)."""

    text: str
    spans: tuple[str, ...] = ()


def text_of(lines: tuple[Line, ...]) -> str:
    return "".join(f"{line.text}\n" for line in lines)


def alt_text(placement: Placement, plans: tuple[SpanPlan, ...]) -> str | None:
    """The placement's own alt text, else that of the widest span's original; None where nobody has written any."""
    if placement.alt is not None:
        return placement.alt
    return next((p.original.alt for p in reversed(plans) if p.original and p.effective.show == "picture"), None)


def _attributes(pairs: Mapping[str, str | int | None]) -> str:
    return "".join(f' {k}="{html.escape(str(v), quote=True)}"' for k, v in pairs.items() if v is not None)


def _srcset(files: list[Rendition], folder: str) -> str:
    return ", ".join(
        f"{folder}{f.name}" + ("" if f.density == 1 else f" {f.density:g}x") for f in sorted(files, key=lambda f: f.density)
    )


#: An image of nothing, for spans that show none: no request is made, where a picture that is only hidden would be fetched.
BLANK = "data:image/svg+xml,%3Csvg%20xmlns=%22http://www.w3.org/2000/svg%22/%3E"


class _Served(NamedTuple):
    """Neighbouring spans that one source serves, as one span; `files` is empty where they show no picture."""

    span: Span
    letters: tuple[str, ...]
    files: tuple[Rendition, ...]


def _served(plans: tuple[SpanPlan, ...], files: tuple[tuple[Group, tuple[Rendition, ...]], ...]) -> dict[str, _Served]:
    """What each run of spans takes, by its last letter, from the narrowest; nothing at all where no span has a picture yet.

    A span that still waits for its picture shows none: not that of another span.
    """
    found = [_Served(p.span, (p.span.letter,), renditions) for g, renditions in files for p in g.spans]
    if not found and all(p.waits for p in plans):
        return {}
    found += [_Served(p.span, (p.span.letter,), ()) for p in plans if p.shown is None]
    found.sort(key=lambda s: s.span.first)
    out: list[_Served] = []
    for one in found:
        last = out[-1] if out else None
        if last and one.files == last.files and last.span.last + 1 == one.span.first:
            span = Span(one.span.letter, "", last.span.first, one.span.last)
            out[-1] = _Served(span, (*last.letters, *one.letters), one.files)
        else:
            out.append(one)
    return {s.span.letter: s for s in out}


def picture_lines(
    site: Site,
    placement: Placement,
    plans: tuple[SpanPlan, ...],
    files: tuple[tuple[Group, tuple[Rendition, ...]], ...],
    folder: str = "images/",
) -> tuple[Line, ...]:
    """The markup, a line each. Without any file there is nothing to show and no line."""
    served = _served(plans, files)
    if not served:
        return ()
    lines = [Line(text=f'<picture class="{placement.called}">')]
    for letter, media in conditions(tuple(s.span for s in served.values()), site.media_style):
        one = served[letter]
        formats = list(dict.fromkeys(r.format for r in one.files))
        if not formats:
            lines.append(Line(text=_blank(placement, plans, media), spans=one.letters))
        for f in formats:
            mine = [r for r in one.files if r.format == f]
            first = mine[0]
            size = {"width": first.width_px, "height": first.height_px}
            if media is None and f == formats[-1]:
                lines.append(Line(text=_img(placement, plans, mine, size, folder), spans=one.letters))
            else:
                source = {"media": media, "type": TYPES[f], "srcset": _srcset(mine, folder), **size}
                lines.append(Line(text=f"  <source{_attributes(source)}>", spans=one.letters))
    lines.append(Line(text="</picture>"))
    return tuple(lines)


def _blank(placement: Placement, plans: tuple[SpanPlan, ...], media: str | None) -> str:
    if media is None:
        return f"  <img{_attributes({'src': BLANK, 'alt': alt_text(placement, plans) or ''})}>"
    return f"  <source{_attributes({'media': media, 'srcset': BLANK})}>"


def _img(placement: Placement, plans: tuple[SpanPlan, ...], files: list[Rendition], size: dict[str, int], folder: str) -> str:
    srcset = _srcset(files, folder) if len(files) > 1 else None
    return (
        "  <img"
        + _attributes(
            {
                "src": folder + files[0].name,
                "srcset": srcset,
                **size,
                "alt": alt_text(placement, plans) or "",
                "loading": "eager" if placement.lead else "lazy",
                "fetchpriority": "high" if placement.lead else None,
                "decoding": "async",
            }
        )
        + ">"
    )


# -- CSS ---------------------------------------------------------------------------------------------------------------


class SpanCss(Noun):
    """Declarations of one span, before what does not change is left out."""

    frame: dict[str, str]
    img: dict[str, str]
    exact: dict[str, str] = {}  # of the img too, for browsers with container units; `img` has percentages for all others
    held_by: tuple[str, ...] = ()

    @property
    def position(self) -> str:
        """`object-position` as current browsers take it."""
        return self.exact.get("object-position", self.img["object-position"])


def span_css(site: Site, plan: SpanPlan, cut: Region) -> SpanCss:
    """What the frame and the picture of one span need. `cut`: what the file carries of the crop, WHOLE for all of it.

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
    return SpanCss(frame=frame, img=img, exact=exact, held_by=tuple(dict.fromkeys((*x.held_by, *y.held_by))))


def _standing(site: Site, plan: SpanPlan) -> str:
    """Where the frame stands, needed only where it is narrower than the page."""
    if (plan.W >= plan.viewport_w - 0.01).all():
        return "0"
    return standing_css(plan.effective.stands, plan.effective.width, site.container)


_FIXED_FRAME = {"position": "relative", "overflow": "hidden"}
_FIXED_IMG = {"position": "absolute", "inset": "0", "width": "100%", "height": "100%"}
_NEUTRAL = {"margin-inline": "0", "min-height": "0", "max-height": "none", "aspect-ratio": "auto", "height": "auto"}


def css_lines(site: Site, placement: Placement, plans: tuple[SpanPlan, ...], *, whole: bool = False) -> tuple[Line, ...]:
    """The CSS of a placement. `whole`: for whole crops instead of the cut files; both show the same.

    The block without a condition is the span that is tested last; the others follow so that later ones win. Lengths that need
    container units stand in `@supports` with a percentage before it: a value with `var()` is valid while it is read, so that a
    browser without those units would not fall back to an earlier declaration (CSS Variables 1, §3.1) but to 50 % 50 %.
    """
    name = placement.called
    blocks = {p.span.letter: span_css(site, p, WHOLE if whole else p.cut_inside) for p in plans}
    ordered = list(reversed(in_testing_order(tuple(p.span for p in plans), site.media_style)))
    sized = any(css.exact for css in blocks.values())
    idle = {k for k, v in _NEUTRAL.items() if all(css.frame.get(k, v) == v for css in blocks.values())}
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
        changed_exact = css.exact if css.exact != before_exact or "object-position" in changed_img else {}
        before_frame, before_img, before_exact = {**before_frame, **frame}, {**before_img, **img}, css.exact
        rules: list[str] = []
        if changed_frame:
            rules += _rule(f".{name}", [f"{k}: {v};" for k, v in changed_frame.items()])
        if changed_img:
            rules += _rule(f".{name} img", [f"{k}: {v};" for k, v in changed_img.items()])
        if changed_exact:
            declarations = [f"/* held by {_commented(', '.join(css.held_by))} */"] if css.held_by else []
            declarations += [f"{k}: {v};" for k, v in changed_exact.items()]
            rules += [f"@supports ({_NEEDED}) {{", *(f"  {r}" for r in _rule(f".{name} img", declarations)), "}"]
        if not rules:
            continue
        letters = (span.letter,)
        if i == 0:
            lines += [Line(text=r, spans=letters) for r in rules]
        else:
            condition = (
                lower_condition(span.first) if site.media_style == "min-width" else upper_condition(span.last, site.media_style)
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


# -- whole pages -------------------------------------------------------------------------------------------------------


def page_html(placement: Placement, snippet: str, *, stylesheet: str = "picture.css", lang: str = "en") -> str:
    """A complete page around the markup, which works from disk."""
    title = html.escape(placement.name)
    body = "\n".join(f"    {line}" for line in snippet.rstrip("\n").split("\n"))
    return f"""<!DOCTYPE html>
<html lang="{html.escape(lang, quote=True)}">
  <head>
    <meta charset="utf-8">
    <meta name="viewport" content="width=device-width, initial-scale=1">
    <title>{title}</title>
    <style>body {{ margin: 0; }}</style>
    <link rel="stylesheet" href="{html.escape(stylesheet, quote=True)}">
  </head>
  <body>
{body}
  </body>
</html>
"""


def pane_lines(
    site: Site, placement: Placement, plans: tuple[SpanPlan, ...], url: Callable[[Original, Rect | None], str]
) -> tuple[Line, ...]:
    """The markup of a pane: the same conditions, with previews of the originals' crops in place of the files."""
    if all(p.waits for p in plans):
        return ()
    shown = {p.span.letter: p for p in plans}
    lines = [Line(text=f'<picture class="{placement.called}">')]
    for letter, media in conditions(tuple(p.span for p in shown.values()), site.media_style):
        p = shown[letter]
        if p.original is None or p.shown is None:
            lines.append(Line(text=_blank(placement, plans, media), spans=(letter,)))
            continue
        crop = crop_of(p.original, p.crop)
        size = {"width": crop.w, "height": crop.h}
        source = url(p.original, None if p.crop is WHOLE else p.effective.crop)
        if media is None:
            attributes: dict[str, str | int | None] = {"src": source, **size, "alt": alt_text(placement, plans) or ""}
            lines.append(Line(text=f"  <img{_attributes(attributes)}>", spans=(letter,)))
        else:
            lines.append(Line(text=f"  <source{_attributes({'media': media, 'srcset': source, **size})}>", spans=(letter,)))
    lines.append(Line(text="</picture>"))
    return tuple(lines)
