"""The one door for the interface: a placement in, everything that is shown on its desk out.

A reading is compact: bands are runs of widths, curves the few points where their slope changes, so
that the cursor can say its sentence for any width without asking again.
"""

from __future__ import annotations

from collections.abc import Callable, Mapping

from skypane.advice.walk import advise_all
from skypane.files.renditions import Group, renditions
from skypane.files.rows import file_rows
from skypane.findings.rules import findings_in
from skypane.geometry import Edges, Rect, Region, overlap
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.pane import pane_lines
from skypane.markup.picture import picture_lines
from skypane.markup.sizes import sizes_css
from skypane.model import Original, Placement, Rendition, Site
from skypane.reading.bands import area_bands, sharp_bands, weight_bands
from skypane.reading.detail import span_detail
from skypane.reading.nouns import Code, OverallSafe, Pane, Reading, ViewportPoint
from skypane.reading.spans import span_reading
from skypane.shown.brief import brief
from skypane.shown.fit import safe_area
from skypane.shown.keeps import failing
from skypane.shown.plan import SpanPlan, plan


def read(
    site: Site,
    placement: Placement,
    originals: Mapping[int, Original],
    *,
    preview: Callable[[Original, Rect | None], str] = lambda o, crop: o.name,
    made_bytes: Callable[[list[str]], Mapping[str, int]] = lambda keys: {},
    others: Callable[[], Mapping[int, Original]] = dict,
    chosen: str | None = None,
    costs: bool = False,
) -> Reading:
    """Everything about a placement. `preview` tells where a preview of an original's crop is to be
    had, `made_bytes` the bytes of those renditions that exist already, by key; `others` gives
    originals of the site that advice may propose, and is asked only where something fails; `chosen`
    is the span that is read in detail, and then the only one that advice is worked out for; with
    `costs` its detail says what each way to aim comes to.

    Raises InvalidPlan where the placement cannot be computed.
    """
    plans = plan(site, placement, originals)
    files = renditions(site, placement, plans)
    made = made_bytes([r.key for _, mine in files for r in mine])
    rows = file_rows(files, made)
    fails = any(failing(p) for p in plans if chosen is None or p.span.letter == chosen)
    return Reading(
        narrowest=site.narrowest,
        widest=site.widest,
        spans=tuple(span_reading(site, placement, p) for p in plans),
        bands=(
            *area_bands(plans),
            *sharp_bands(site, plans, files),
            *weight_bands(site, plans, files, made),
        ),
        files=rows,
        findings=tuple(findings_in(placement, plans, rows, site.densities)),
        advice=advise_all(site, plans, {**originals, **others()}, chosen) if fails else (),
        code=_code(site, placement, plans, files),
        pane=Pane(
            markup=text_of(pane_lines(site, placement, plans, preview)),
            css=text_of(css_lines(site, placement, plans, whole=True)),
        ),
        heights=tuple(
            ViewportPoint(to_px=h.to_px, typical_px=h.typical_px)
            for h in sorted(site.heights, key=lambda h: h.to_px)
        ),
        budget_bytes=site.budget_bytes,
        safe=_overall_safe(plans),
        brief=brief(plans, site.densities[-1]) if any(p.waits for p in plans) else None,
        detail=next((span_detail(site, p, costs) for p in plans if p.span.letter == chosen), None),
    )


def _overall_safe(plans: tuple[SpanPlan, ...]) -> tuple[OverallSafe, ...]:
    """Per original in use what all its spans have in common."""
    letters: dict[int, list[str]] = {}
    safe: dict[int, Region | None] = {}
    for p in plans:
        if p.original is None or p.shown is None:
            continue
        mine = safe_area(p.shown)
        safe[p.original.id] = overlap(safe[p.original.id], mine) if p.original.id in safe else mine
        letters.setdefault(p.original.id, []).append(p.span.letter)
    return tuple(
        OverallSafe(
            original=id_,
            spans=tuple(letters[id_]),
            safe=Edges(**region._asdict()) if region else None,
        )
        for id_, region in safe.items()
    )


def _code(
    site: Site,
    placement: Placement,
    plans: tuple[SpanPlan, ...],
    files: tuple[tuple[Group, tuple[Rendition, ...]], ...],
) -> Code:
    markup = picture_lines(site, placement, plans, files)
    css = css_lines(site, placement, plans)
    sizes = sizes_css(
        [(p.span.first, p.span.last, p.effective.width) for p in plans],
        site.container,
        site.media_style,
    )
    return Code(
        markup=markup, css=css, sizes=sizes, markup_text=text_of(markup), css_text=text_of(css)
    )
