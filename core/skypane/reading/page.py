"""A whole page at a glance: all its placements as one long preview, how high its head is and where
each stands, what is wider than the page, and what it weighs."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

import numpy as np

from skypane.errors import InvalidPlan
from skypane.files.renditions import renditions
from skypane.markup.css import css_lines
from skypane.markup.fonts import font_lines
from skypane.markup.lines import text_of
from skypane.markup.pane import PreviewUrl, pane_lines
from skypane.markup.picture import loads_at_once
from skypane.markup.scripts import is_moved
from skypane.markup.whole import page_css, wrapped
from skypane.model import Original, PageLayout, Placement, Site
from skypane.paged import PageInSpan, page_in_spans
from skypane.reading.leads import lead_reading
from skypane.reading.nouns import (
    Band,
    OnPage,
    PageOverflow,
    PageReading,
    PageSpan,
    Pane,
    ViewportPoint,
)
from skypane.reading.read import FONT_URL, MadeBytes, made_of
from skypane.reading.weights import all_weights, no_weight, weight_band, with_weight
from skypane.shown.nouns import Plan
from skypane.shown.plan import plan
from skypane.widths.curves import simplified
from skypane.widths.runs import equal_runs, merged, runs_of

#: What a frame may be wider than its page and still be taken for as wide (CSS px).
OFF_BY_PX = 0.5


def read_page(
    site: Site,
    layout: PageLayout,
    placements: Sequence[Placement],
    originals: Mapping[int, Original],
    *,
    preview: PreviewUrl,
    made_bytes: MadeBytes = lambda keys: {},
) -> PageReading:
    """Everything about a page of placements in reading order. A placement that cannot be computed
    says why and is left out of the preview. Raises InvalidPlan where the layout speaks of spans
    that the site does not have."""
    held = page_in_spans(site, layout, len(placements))
    plans = [_planned(site, p, originals) for p in placements]
    good = [p for p in plans if isinstance(p, Plan)]
    snippets = [text_of(pane_lines(p, preview)) if isinstance(p, Plan) else "" for p in plans]
    css = [*font_lines(good, FONT_URL, waits=False)]
    for computed in good:
        css += css_lines(computed, whole=True)
    # what one picture may have, for each of them
    budget = site.budget_bytes * max(1, sum(len(p.written) for p in good))
    overflows = tuple(o for i, p in enumerate(plans) if isinstance(p, Plan) for o in _wide(i, p))
    return PageReading(
        narrowest=site.narrowest,
        widest=site.widest,
        heights=tuple(
            ViewportPoint(to_px=h.to_px, typical_px=h.typical_px)
            for h in sorted(site.heights, key=lambda h: h.to_px)
        ),
        budget_bytes=budget,
        spans=tuple(_span(h, layout, held[-1].order) for h in held),
        placements=tuple(_on_page(p, found) for p, found in zip(placements, plans, strict=True)),
        overflows=overflows,
        bands=(_fits_band(site, overflows), *_weight_bands(site, plans, made_bytes, budget)),
        pane=Pane(
            markup="".join(wrapped(held, snippets)),
            css=text_of((*css, *page_css(site, held))),
            colours=site.colours,
        ),
        moves=is_moved(good),
        lead=lead_reading(site, held, placements, plans),
    )


def _planned(
    site: Site, placement: Placement, originals: Mapping[int, Original]
) -> Plan | InvalidPlan:
    try:
        return plan(site, placement, originals)
    except InvalidPlan as problem:
        return problem


def _span(h: PageInSpan, layout: PageLayout, read: tuple[int, ...]) -> PageSpan:
    own = layout.get(h.span.letter)
    return PageSpan(
        letter=h.span.letter,
        title=h.span.title,
        first=h.span.first,
        last=h.span.last,
        head_px=h.head_px,
        head_over=h.head_over,
        order=h.order,
        read_otherwise=h.order != read,
        own=tuple(own.model_dump(exclude_none=True)) if own else (),
    )


def _on_page(placement: Placement, found: Plan | InvalidPlan) -> OnPage:
    if isinstance(found, InvalidPlan):
        return OnPage(name=placement.name, kind=placement.kind, shows=(), error=str(found))
    shows = tuple(
        spot.span.letter
        for spot in found.spots
        if any(c.effective.show != "nothing" for c in spot.cells)
    )
    return OnPage(name=placement.name, kind=placement.kind, shows=shows, error=None)


def _wide(index: int, computed: Plan) -> list[PageOverflow]:
    """The widths at which its box is wider than the page, which then scrolls sideways."""
    out = []
    for spot in computed.spots:
        if all(c.effective.show == "nothing" for c in spot.cells):
            continue
        widths = spot.viewports.widths
        over = computed.layout.box_widths(spot) - widths
        for a, b in equal_runs(over > OFF_BY_PX):
            if over[a] > OFF_BY_PX:
                worst = int(a + over[a:b].argmax())
                out.append(
                    PageOverflow(
                        placement=index,
                        first=int(widths[a]),
                        last=int(widths[b - 1]),
                        by_px=round(float(over[worst]), 1),
                        at=int(widths[worst]),
                    )
                )
    return out


def _fits_band(site: Site, overflows: Sequence[PageOverflow]) -> Band:
    """Whether the page scrolls sideways, by how many CSS px at the worst placement."""
    widths = np.arange(site.narrowest, site.widest + 1, dtype=float)
    over = np.zeros(len(widths))
    for o in overflows:
        at = (widths >= o.first) & (widths <= o.last)
        over[at] = np.maximum(over[at], o.by_px)
    return Band(
        kind="fits",
        id="fits",
        name="Fits the page",
        runs=merged(runs_of(widths, np.where(over > 0, "grows", "fits"), -over)),
        curve=simplified(widths, -over, OFF_BY_PX),
    )


def _weight_bands(
    site: Site, plans: Sequence[Plan | InvalidPlan], made_bytes: MadeBytes, budget: int
) -> tuple[Band, ...]:
    """Bytes of all pictures at the greatest density, and of those that load at once; unknown where
    a file of them has not been made."""
    total = first = no_weight(site)
    for computed in plans:
        if not isinstance(computed, Plan):
            continue
        files = renditions(computed)
        made, _ = made_of(made_bytes, files)
        at_once = [p for p in computed.parts if loads_at_once(computed, p)]
        total = with_weight(total, all_weights(computed, computed.parts, files, made))
        first = with_weight(first, all_weights(computed, at_once, files, made))
    density = site.densities[-1]
    return (
        weight_band(site, "weight", f"Weight at {density:g}x", total, budget),
        weight_band(site, "weight.at-once", "Loads at once", first, budget),
    )
