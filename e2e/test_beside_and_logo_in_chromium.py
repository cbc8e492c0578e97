"""Pictures beside text, and a logo in its cuts, as Chromium lays them out, against what the core
says."""

from __future__ import annotations

import itertools

import pytest
from accessible import axe_clean
from delivered import BOXES, WIDTHS, made, put, span_at
from selectolax.lexbor import LexborHTMLParser
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.markup.lines import text_of
from skypane.markup.picture import placement_lines
from skypane.picks import Environment, pick
from skypane.reading import read
from skypane.shown.nouns import ShownSpan

ORIGINALS = {
    i: m.Original(id=i, name=f"p{i}.jpg", width_px=w, height_px=h, sha256=f"p{i}", alt=f"Thing {i}")
    for i, (w, h) in enumerate([(6000, 4000), (3024, 4032), (1920, 1080)], 1)
}
ITEMS = {
    1: m.Item(title="In the cottage", text="The stove is lit from October to April. " * 3),
    2: m.Item(title="On the jetty", href="/jetty"),
    3: m.Item(text="Out of the wind, and in the sun until three.\nThe lowest are under water."),
}
LAYOUTS: dict[str, dict[str, dict[str, object]]] = {
    "shares": {
        "D": {"share_percent": 25, "columns": 2, "gutter_px": 40, "align": "centre"},
        "C": {"share_percent": 50, "columns": 1, "side": "alternate", "between_px": 30},
        "B": {"side": "end", "align": "end", "margin_px": 12},
        "A": {"share_percent": 100, "stacked": "below", "between_px": 10},
    },
    "in a row": {
        "D": {"share_percent": 100, "columns": 3, "gutter_px": 21.5, "margin_px": 33},
        "C": {"share_percent": 40, "columns": 1},
        "A": {"share_percent": 100, "gutter_px": 8, "captions": "title"},
    },
}


@pytest.mark.parametrize("name", LAYOUTS)
def test_pictures_stand_beside_their_text_as_computed(browser, shelf, name):
    """Every frame within 0.5 px at 40 widths, and the page never scrolls sideways."""
    placement = made("beside", ORIGINALS, LAYOUTS[name], ITEMS)
    found, url = put(shelf, placement, ORIGINALS)
    page = browser.new_page(viewport={"width": 1280, "height": 800})
    page.goto(url)
    page.evaluate("document.fonts.ready")
    for width in map(int, WIDTHS):
        page.set_viewport_size({"width": width, "height": 800})
        for n, box in enumerate(page.evaluate(BOXES)):
            p, i = span_at(found, n, width)
            frame = [float(a[a.shape[0] // 2, i]) for a in (p.frame.x, p.frame.y, p.W, p.H)]
            assert box == pytest.approx(frame, abs=0.5), (width, p.span.letter, n)
        assert page.evaluate("document.documentElement.scrollWidth") <= width, width
    axe_clean(page)
    page.close()


def test_a_screen_reader_reads_in_the_order_of_the_narrowest_screens(browser, shelf):
    """Picture and text stand in the markup as they do on A, whatever side the picture is on above
    that (WCAG 2.2, 1.3.2)."""
    for stacked, wanted in (("above", ["PICTURE", "DIV"]), ("below", ["DIV", "PICTURE"])):
        layout = {"D": {"side": "end"}, "A": {"share_percent": 100, "stacked": stacked}}
        _, url = put(shelf, made("beside", ORIGINALS, layout, ITEMS), ORIGINALS)
        page = browser.new_page(viewport={"width": 400, "height": 800})
        page.goto(url)
        first = "[...document.querySelector('.nine > div').children]"
        assert page.evaluate(f"{first}.map((e) => e.tagName)") == wanted
        tops = page.evaluate(f"{first}.map((e) => e.getBoundingClientRect().top)")
        assert tops == sorted(tops)
        page.close()


#: Four cuts of one logo, as SVG files have them, and the height of their lettering in percent.
CUTS = {
    1: (625, 150, 17.0),
    2: (625, 140, 55.0),
    3: (263, 416, 18.0),
    4: (128, 128, None),
}
LOGOS = {
    i: m.Original(
        id=i,
        name=f"c{i}.svg",
        width_px=w,
        height_px=h,
        sha256=f"c{i}",
        alt="Tern Point",
        medium="drawing",
    )
    for i, (w, h, _) in CUTS.items()
}
#: Breakpoints where another cut is called for in a box of 24 % of the page, 2:1.
SITE = m.Site(narrowest=240, widest=2000, breakpoints=(372, 1123, 1600))


def logo(turned: dict[str, m.Treatment] | None = None, **values: object) -> m.Placement:
    """`turned`: what shows in portrait instead."""
    cuts = [{"original": i, "lettering_percent": share} for i, (_, _, share) in CUTS.items()]
    box = {"width": m.ShareWidth(percent=24), "height": m.RatioHeight(w=2, h=1)}
    shown = {"D": 1, "C": 1, "B": 2, "A": 4}
    treatments = {k: m.Treatment(original=i, **(box if k == "D" else {})) for k, i in shown.items()}
    layout = {"D": {"cuts": cuts, **values}}
    parts = [m.Part(key="nine", treatments=treatments)]
    parts += [m.Part(of="nine", when=("portrait",), treatments=turned)] if turned else []
    return m.Placement(name="Nine", kind="logo", layout=layout, parts=tuple(parts))


#: In portrait the tall cut from C down, and the symbol on A.
TURNED = {
    "C": m.Treatment(show="picture", original=3),
    "A": m.Treatment(original=4),
}


@pytest.mark.parametrize(
    ("values", "turned"),
    [
        ({}, None),
        ({"padding_px": 8, "lies": "end", "bar": True}, TURNED),
        ({"drawn": "natural", "lies": "centre"}, TURNED),
    ],
)
def test_a_logo_is_whole_at_every_width_and_exactly_one_cut_shows(browser, shelf, values, turned):
    """Swept from 240 to 2000 px, lying and upright: the cut that our own reading of the markup
    picks, which is that of its span and orientation, all of it in its frame, the frame where it was
    computed, nothing scrolled sideways."""
    found, url = put(shelf, logo(turned, **values), LOGOS, site=SITE)
    markup = text_of(placement_lines(found, renditions(found)))
    (picture,) = [n.html for n in LexborHTMLParser(markup).css("picture")]
    for i, (w, h, _) in CUTS.items():
        svg = (
            f'<svg xmlns="http://www.w3.org/2000/svg" width="{w}" height="{h}"'
            f' viewBox="0 0 {w} {h}"><rect width="100%" height="100%"/></svg>'
        )
        for file in (r for _, mine in renditions(found) for r in mine if r.original == i):
            shelf.put(f"/images/{file.name}", svg, "image/svg+xml")
    page = browser.new_page(viewport={"width": 1280, "height": 600})
    page.goto(url)
    for width, is_turned in itertools.product(range(240, 2001, 40), (False, True)):
        height = width + 100 if is_turned else width - 40
        page.set_viewport_size({"width": width, "height": height})
        p, i = span_at(found, 0, width)
        if is_turned and len(found.parts) > 1:
            other, _ = span_at(found, 1, width)
            p = other if isinstance(other, ShownSpan) else p
        taken = pick(picture, Environment(width=width, height=height, density=1)).url
        (own,) = {r.name for g, mine in renditions(found) if p in g.spans for r in mine}
        assert taken == f"images/{own}", (width, height)
        # another picture is chosen a moment after the width has changed
        page.wait_for_function(
            "(f) => document.images[0].complete && document.images[0].currentSrc.endsWith(f)",
            arg=taken,
            timeout=5000,
        )
        fit, *box = page.evaluate(
            """() => {
              const img = document.images[0], r = img.getBoundingClientRect();
              const outer = document.querySelector('.nine > div').getBoundingClientRect();
              return [getComputedStyle(img).objectFit,
                      r.left - outer.left, r.top - outer.top, r.width, r.height,
                      document.images.length, document.documentElement.scrollWidth];
            }"""
        )
        frame = [float(a[a.shape[0] // 2, i]) for a in (p.frame.x, p.frame.y, p.W, p.H)]
        assert box[:4] == pytest.approx(frame, abs=0.5), (width, height)
        assert fit == "contain"
        assert box[4] == 1
        assert box[5] <= width
    page.close()


def test_each_span_shows_the_fullest_cut_that_can_be_read():
    """The cuts that every width calls for, worked out once more from the definition: lettering of
    at least 11 px (common practice)."""
    reading = read(SITE, logo(), LOGOS)
    assert reading.own is not None
    for width in range(240, 2001):
        box_w, box_h = width * 0.24, width * 0.12
        fullest = next(
            i
            for i, (w, h, share) in CUTS.items()
            if share is None or h * min(box_w / w, box_h / h) * share / 100 >= 11 - 1e-6
        )
        called = next(r for r in reading.own.called_for if r.first <= width <= r.last)
        assert reading.own.cuts[called.cut].original == fullest, width
    assert reading.own.breaks == ()
    assert reading.own.spans == {"A": 4, "B": 2, "C": 1, "D": 1}
