"""Pages beside a classic scrollbar: it narrows the page, but not the viewport that media conditions
ask for (Media Queries 4 §4.1)."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from conftest import CHROMIUM
from delivered import BOXES, made, put
from playwright.sync_api import Browser
from skypane import model as m
from skypane.reading import read
from skypane.shown.plan import plan
from test_bounded_heights_in_chromium import LAYOUTS, ORIGINALS, SITE

WIDTHS = (599, 600, 777, 1023, 1024, 1599, 1600, 2560)


@pytest.fixture(scope="module")
def with_bars(browser: Browser) -> Iterator[Browser]:
    """A browser that draws its scrollbars; tests hide them otherwise."""
    chromium = browser.browser_type.launch(
        executable_path="/usr/bin/chromium",
        args=CHROMIUM,
        ignore_default_args=["--hide-scrollbars"],
    )
    yield chromium
    chromium.close()


@pytest.mark.parametrize("kind", LAYOUTS)
def test_frames_are_those_of_the_narrower_page(with_bars, shelf, kind):
    """Within a px at both ends of every span; spans change by the viewport, containers by the
    page."""
    shown = (1,) if kind in ("picture", "banner", "logo") else (1, 2, 3)
    placement = made(kind, ORIGINALS, LAYOUTS[kind], shown=shown)
    if kind == "picture":
        own = (
            placement.parts[0]
            .treatments["D"]
            .model_copy(update={"width": m.ShareWidth(percent=100, of="container")})
        )
        placement = placement.with_part(
            0, placement.parts[0].model_copy(update={"treatments": {"D": own}})
        )
    _, url = put(shelf, placement, ORIGINALS, site=SITE, below='<div style="height: 4000px"></div>')
    page = with_bars.new_page(viewport={"width": 1280, "height": 800})
    page.goto(url)
    page.evaluate("document.fonts.ready")
    bar = page.evaluate("innerWidth - document.documentElement.clientWidth")
    assert bar > 0
    found = plan(SITE, placement, ORIGINALS, bar)
    for width in WIDTHS:
        page.set_viewport_size({"width": width, "height": 800})
        boxes = page.evaluate(BOXES)
        for n, box in enumerate(boxes):
            p = next(p for p in found.parts[n].spans if p.span.first <= width <= p.span.last)
            i, row = width - p.span.first, min(1, p.W.shape[0] - 1)
            frame = [float(a[row, i]) for a in (p.frame.x, p.frame.y, p.W, p.H)]
            # the box of a logo may stand anywhere in the page
            least = 2 if kind == "logo" else 0
            assert box[least:] == pytest.approx(frame[least:], abs=1), (width, n)
    page.close()


def test_a_reading_beside_a_scrollbar_keeps_files_and_code():
    """What is handed over is one for all visitors; what shows is told for those with a bar."""
    placement = made("picture", ORIGINALS, {}, shown=(1,))
    usual = read(SITE, placement, ORIGINALS)
    beside = read(SITE, placement, ORIGINALS, scrollbar_px=15)
    assert beside.files == usual.files
    assert beside.code == usual.code
    assert beside.pane == usual.pane
    wide, narrow = (r.parts[0].spans[-1].frame_w.points[-1] for r in (usual, beside))
    assert wide[1] - narrow[1] == pytest.approx(15)
