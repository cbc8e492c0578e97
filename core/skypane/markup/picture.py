"""The `picture` element of a placement (HTML Standard §4.8.1–4.8.4: picture, source, img).

Sources stand in the order in which they have to be tested, by span and within a span by format,
most modern first; every source lists all its densities, its type and the px size of its files.
"""

from __future__ import annotations

from typing import NamedTuple

from skypane.files.renditions import Group
from skypane.markup.lines import Line, attributes_html
from skypane.model import Placement, Rendition, Site
from skypane.shown.plan import SpanPlan
from skypane.widths.conditions import conditions
from skypane.widths.spans import Span

TYPES = {"avif": "image/avif", "webp": "image/webp", "jpeg": "image/jpeg", "png": "image/png"}


def alt_text(placement: Placement, plans: tuple[SpanPlan, ...]) -> str | None:
    """The placement's own alt text, else that of the widest span's original; None where nobody has
    written any."""
    if placement.alt is not None:
        return placement.alt
    return next(
        (p.original.alt for p in reversed(plans) if p.original and p.effective.show == "picture"),
        None,
    )


def _srcset(files: list[Rendition], folder: str) -> str:
    return ", ".join(
        f"{folder}{f.name}" + ("" if f.density == 1 else f" {f.density:g}x")
        for f in sorted(files, key=lambda f: f.density)
    )


#: An image of nothing, for spans that show none: no request is made, where a picture that is only
#: hidden would be fetched.
BLANK = "data:image/svg+xml,%3Csvg%20xmlns=%22http://www.w3.org/2000/svg%22/%3E"


class _Served(NamedTuple):
    """Neighbouring spans that one source serves, as one span; `files` is empty where they show no
    picture."""

    span: Span
    letters: tuple[str, ...]
    files: tuple[Rendition, ...]


def _served(
    plans: tuple[SpanPlan, ...], files: tuple[tuple[Group, tuple[Rendition, ...]], ...]
) -> dict[str, _Served]:
    """What each run of spans takes, by its last letter, from the narrowest; nothing at all where no
    span has a picture yet.

    A span that still waits for its picture shows none: not that of another span.
    """
    found = [
        _Served(p.span, (p.span.letter,), renditions) for g, renditions in files for p in g.spans
    ]
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
            lines.append(Line(text=blank_html(placement, plans, media), spans=one.letters))
        for f in formats:
            mine = [r for r in one.files if r.format == f]
            first = mine[0]
            size = {"width": first.width_px, "height": first.height_px}
            if media is None and f == formats[-1]:
                lines.append(
                    Line(text=_img(placement, plans, mine, size, folder), spans=one.letters)
                )
            else:
                source = {"media": media, "type": TYPES[f], "srcset": _srcset(mine, folder), **size}
                lines.append(Line(text=f"  <source{attributes_html(source)}>", spans=one.letters))
    lines.append(Line(text="</picture>"))
    return tuple(lines)


def blank_html(placement: Placement, plans: tuple[SpanPlan, ...], media: str | None) -> str:
    if media is None:
        return f"  <img{attributes_html({'src': BLANK, 'alt': alt_text(placement, plans) or ''})}>"
    return f"  <source{attributes_html({'media': media, 'srcset': BLANK})}>"


def _img(
    placement: Placement,
    plans: tuple[SpanPlan, ...],
    files: list[Rendition],
    size: dict[str, int],
    folder: str,
) -> str:
    srcset = _srcset(files, folder) if len(files) > 1 else None
    return (
        "  <img"
        + attributes_html(
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
