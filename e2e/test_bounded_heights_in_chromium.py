"""Frames whose height is bounded, in Chromium: every kind, each rule that follows the width."""

from __future__ import annotations

import pytest
from delivered import BOXES, made, put, span_at
from skypane import model as m

ORIGINALS = {
    i: m.Original(id=i, name=f"p{i}.jpg", width_px=w, height_px=h, sha256=f"p{i}", alt=f"View {i}")
    for i, (w, h) in enumerate([(6000, 3000), (9000, 3000), (3024, 4032)], 1)
}
SITE = m.Site(narrowest=240, widest=2560)
WIDTHS = (240, 320, 375, 599, 600, 768, 1023, 1024, 1280, 1599, 1600, 2000, 2560)
HEIGHTS: dict[str, m.HeightRule] = {
    "ratio, at least": m.RatioHeight(w=2, h=1, least_px=320),
    "flat, at least": m.RatioHeight(w=7, h=1, least_px=320),
    "ratio, at most": m.RatioHeight(w=3, h=4, greatest_px=410),
    "ratio, at least vh": m.RatioHeight(w=21, h=9, least_vh=60),
    "natural, at least": m.NaturalHeight(least_px=480),
    "natural, at most": m.NaturalHeight(greatest_px=260),
}
LAYOUTS: dict[str, dict[str, dict[str, object]]] = {
    "banner": {"D": {"shows": "on"}, "C": {"shows": "beside"}, "A": {"shows": "below"}},
    "grid": {"D": {"columns": 3}, "B": {"arranged": "rows"}, "A": {"arranged": "slides"}},
    "slides": {"D": {"at_a_time": 2, "gutter_px": 10}, "A": {"at_a_time": 1}},
    "beside": {"D": {"share_percent": 60}, "A": {"share_percent": 100}},
    "logo": {"D": {"padding_px": 4}},
    "picture": {},
}


@pytest.mark.parametrize("kind", LAYOUTS)
def test_a_bounded_height_never_makes_the_page_scroll_sideways(browser, shelf, kind):
    """A box with a ratio and a least height takes its width from the height where nobody says its
    width (CSS Sizing 4 §5.1): each frame is as told, within 0.5 px, and the page as wide as its
    window (WCAG 2.2, 1.4.10)."""
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    shown = (1,) if kind in ("picture", "banner", "logo") else (1, 2, 3)
    for name, height in HEIGHTS.items():
        values: dict[str, object] = {}
        if kind in ("grid", "slides", "beside"):
            values["common"] = {"D": m.Treatment(height=height)}
        placement = made(kind, ORIGINALS, LAYOUTS[kind], shown=shown, **values)
        if not values:
            first = placement.parts[0]
            own = first.treatments["D"].model_copy(update={"height": height})
            placement = placement.with_part(0, first.model_copy(update={"treatments": {"D": own}}))
        found, url = put(shelf, placement, ORIGINALS, site=SITE)
        page.goto(url)
        page.evaluate("document.fonts.ready")
        for width in WIDTHS:
            page.set_viewport_size({"width": width, "height": 800})
            p, i = span_at(found, 0, width)
            tall = p.spot.viewports.heights[:, i]
            page.set_viewport_size({"width": width, "height": int(tall[1])})
            assert page.evaluate("document.documentElement.scrollWidth") <= width, (name, width)
            for n, box in enumerate(page.evaluate(BOXES)):
                p, i = span_at(found, n, width)
                row = min(1, p.W.shape[0] - 1)
                frame = [float(p.W[row, i]), float(p.H[row, i])]
                assert box[2:] == pytest.approx(frame, abs=0.5), (name, width, n)
    page.close()
