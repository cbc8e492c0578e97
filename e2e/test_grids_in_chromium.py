"""Many pictures as Chromium lays them out, against what the core says."""

from __future__ import annotations

import pytest
from delivered import BOXES, WIDTHS, made, put, span_at
from selectolax.lexbor import LexborHTMLParser
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.picks import Environment, pick
from skypane.shown.plan import plan

#: Of cameras and phones, a panorama, a tall strip, a square.
SIZES = [
    (6000, 4000),
    (4000, 6000),
    (4032, 3024),
    (3024, 4032),
    (1920, 1080),
    (9000, 3000),
    (1000, 4000),
    (2000, 2000),
    (5472, 3648),
]
ORIGINALS = {
    i: m.Original(id=i, name=f"p{i}.jpg", width_px=w, height_px=h, sha256=f"p{i}", alt=f"Thing {i}")
    for i, (w, h) in enumerate(SIZES, 1)
}
ITEMS = {
    1: m.Item(title="The buoy at the mouth", text="It rings when the swell is from the west."),
    2: m.Item(title="A tern"),
    4: m.Item(text="At low water one can walk around it, and the boats wait on the other side."),
    5: m.Item(title="Steps", wide=True),
}
LAYOUTS: dict[str, dict[str, dict[str, object]]] = {
    "cells": {
        "D": {"columns": 4, "gutter_px": 30, "padding_px": 12, "margin_px": 40},
        "C": {"columns": 3, "gutter_px": 17.5},
        "B": {"columns": 2, "captions": "title"},
        "A": {"columns": 1, "gutter_px": 16, "margin_px": 0, "padding_px": 0},
    },
    "own ratios": {
        "D": {"arranged": "justified", "columns": 4, "gutter_px": 8},
        "C": {"columns": 3, "padding_px": 6, "margin_px": 10},
        "B": {"arranged": "masonry", "columns": 2},
        "A": {"arranged": "list", "padding_px": 0},
    },
    "turned": {
        "D": {"arranged": "pages", "columns": 3, "page_of": 6},
        "C": {"arranged": "masonry", "columns": 4, "padding_px": 5, "margin_px": 20},
        "B": {"arranged": "slides", "columns": 2, "gutter_px": 12},
        "A": {"arranged": "rows", "share_percent": 38, "margin_px": 0},
    },
    "padding in per cent": {
        "D": {"columns": 3, "gutter_px": 20, "padding_percent": 1.5, "margin_px": 24},
        "C": {"arranged": "justified", "columns": 4, "gutter_px": 6},
        "B": {"arranged": "masonry", "columns": 3, "padding_percent": 2},
        "A": {"arranged": "slides", "columns": 2, "padding_percent": 4, "margin_px": 0},
    },
}


def nine(layout: dict) -> m.Placement:
    return made("grid", ORIGINALS, layout, ITEMS)


@pytest.mark.parametrize("name", LAYOUTS)
def test_the_browser_lays_cells_out_as_computed(browser, shelf, name):
    """Every frame within 0.5 px at 40 widths, and the page never scrolls sideways."""
    found, url = put(shelf, nine(LAYOUTS[name]), ORIGINALS)
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(url)
    page.evaluate("document.fonts.ready")
    for width in map(int, WIDTHS):
        page.set_viewport_size({"width": width, "height": 800})
        boxes = page.evaluate(BOXES)
        for n, box in enumerate(boxes):
            p, i = span_at(found, n, width)
            frame = [float(a[a.shape[0] // 2, i]) for a in (p.frame.x, p.frame.y, p.W, p.H)]
            assert box == pytest.approx(frame, abs=0.5), (width, p.span.letter, n)
        assert page.evaluate("document.documentElement.scrollWidth") <= width, width
    page.close()


@pytest.mark.parametrize("name", ["cells", "own ratios"])
def test_every_picture_takes_the_file_that_was_predicted(browser, shelf, name):
    """The log of requests at 10 viewports is what our own reading of the markup picks."""
    found, url = put(shelf, nine(LAYOUTS[name]), ORIGINALS)
    markup = text_of(placement_lines(found, renditions(found)))
    pictures = [n.html for n in LexborHTMLParser(markup).css("picture")]
    for width in (320, 414, 599, 600, 834, 1023, 1024, 1440, 1600, 2200):
        density = 2 if width % 2 else 1
        page = browser.new_page(
            viewport={"width": width, "height": 900}, device_scale_factor=density
        )
        asked: set[str] = set()
        page.on("request", lambda r, to=asked: to.add(r.url.rsplit("/", 1)[1]))
        page.goto(url)
        # what waits below is fetched once it comes near
        page.evaluate(
            """async () => {
              for (const i of document.images) {
                i.scrollIntoView();
                while (!i.complete) await new Promise((r) => setTimeout(r, 5));
              }
            }"""
        )
        seen = Environment(width=width, height=900, density=density)
        wanted = {pick(p, seen).url.rsplit("/", 1)[1] for p in pictures}
        assert {a for a in asked if a.startswith("nine")} - {"nine.html"} == wanted, width
        page.close()


@pytest.mark.parametrize("name", ["own ratios", "turned"])
def test_rows_follow_the_pictures_that_show_under_conditions(browser, shelf, name):
    """Another picture on its side and another one at night: each frame within 0.5 px of what it is
    where those pictures always show, under each condition and under both at once."""
    plain = nine(LAYOUTS[name])
    first, fourth = (plain.parts[i].model_copy(update={"key": f"p{i}"}) for i in (0, 3))

    def instead(of: m.Part, when: tuple, original: int) -> m.Part:
        return m.Part(of=of.key, when=when, treatments={"D": m.Treatment(original=original)})

    def showing(first_shows: int, fourth_shows: int) -> m.Placement:
        parts = list(plain.parts)
        for at, original in ((0, first_shows), (3, fourth_shows)):
            parts[at] = m.Part(
                treatments={"D": m.Treatment(original=original)}, item=parts[at].item
            )
        return plain.model_copy(update={"parts": tuple(parts)})

    parts = [first, *plain.parts[1:3], fourth, *plain.parts[4:]]
    parts += [instead(first, ("portrait",), 7), instead(fourth, ("dark",), 6)]
    _, url = put(shelf, plain.model_copy(update={"parts": tuple(parts)}), ORIGINALS)
    for scheme in ("light", "dark"):
        page = browser.new_page(color_scheme=scheme)
        page.goto(url)
        page.evaluate("document.fonts.ready")
        for upright in (False, True):
            alone = showing(7 if upright else 1, 6 if scheme == "dark" else 4)
            found = plan(m.Site(), alone, ORIGINALS)
            for width in (360, 599, 600, 834, 1023, 1024, 1440, 1600, 2200):
                height = width + 200 if upright else width - 100
                page.set_viewport_size({"width": width, "height": height})
                for n, box in enumerate(page.evaluate(BOXES)):
                    p, i = span_at(found, n, width)
                    frame = [float(a[a.shape[0] // 2, i]) for a in (p.frame.x, p.frame.y, p.W, p.H)]
                    assert box == pytest.approx(frame, abs=0.5), (scheme, upright, width, n)
        page.close()
