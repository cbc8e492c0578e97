"""A layout of two parts as Chromium lays it out: frames and places are those of the rules."""

from __future__ import annotations

import sys
from pathlib import Path

import pytest
from playwright.sync_api import Browser

sys.path.insert(0, str(Path(__file__).parents[1] / "core/tests/layouts"))

import pair  # noqa: F401
from skypane import plan, renditions
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.model import Original, Part, Placement, RatioHeight, Site, Treatment

SITE = Site()
BOTH = {
    i: Original(id=i, name=f"{i}.jpg", width_px=4000, height_px=3000, sha256=str(i)) for i in (1, 2)
}
PAIR = Placement(
    name="Harbour",
    kind="pair",
    common={"D": Treatment(height=RatioHeight(w=3, h=2))},
    parts=(
        Part(treatments={"D": Treatment(original=1), "A": Treatment(height=RatioHeight(w=1, h=2))}),
        Part(treatments={"D": Treatment(original=2)}),
    ),
    layout={"D": {"gap_px": 20}, "A": {"gap_px": 8}},
)


def test_cells_are_where_the_layout_says(browser: Browser):
    computed = plan(SITE, PAIR, BOTH)
    markup = text_of(placement_lines(computed, renditions(computed)))
    page = browser.new_page(viewport={"width": 800, "height": 800})
    page.set_content(
        f"<!doctype html><style>body{{margin:0}}{text_of(css_lines(computed))}</style>{markup}"
    )
    for width in (320, 500, 599, 600, 800, 1023, 1024, 1400, 1599, 1600, 2000, 2560):
        page.set_viewport_size({"width": width, "height": 800})
        for part in computed.parts:
            p = next(p for p in part.spans if p.span.first <= width <= p.span.last)
            i = width - p.span.first
            box = page.locator(f".harbour-{part.index + 1}").bounding_box()
            assert box is not None
            expected = (p.frame.x[0, i], p.frame.W[0, i], p.frame.H[0, i])
            got = (box["x"], box["width"], box["height"])
            assert got == pytest.approx(expected, abs=0.5), (width, part.index)
    page.close()
