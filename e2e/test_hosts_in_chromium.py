"""What hosts are given that take no markup, as Chromium shows it in a page of theirs: rules for an
element show what the picture would; what a sheet says is typed shows areas just where it is said to
(against the px of screenshots)."""

from __future__ import annotations

import io

import numpy as np
import pytest
from conftest import Shelf
from PIL import Image
from playwright.sync_api import Browser
from ramps import captured, coordinate_ramp, pixels_of, png, seen_window
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.geometry import Rect
from skypane.hosts import rules_lines, sheet_of
from skypane.markup.addresses import addresses_of
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.shown.keeps import fate_codes
from skypane.shown.plan import plan

RAMP = coordinate_ramp(1500, 1000)
MAST = m.Area(name="Mast", rect=Rect(x=0.72, y=0.25, w=0.2, h=0.5))
QUAY = m.Original(
    id=1, name="ramp.png", width_px=1500, height_px=1000, sha256="r", alt="", areas=(MAST,)
)
#: The words of the host lie over the picture.
HOST = """<!doctype html><meta name="viewport" content="width=device-width">
<style>body {{ margin: 0 }} .image b {{ font: 40px/1 monospace; color: #fff; }}</style>
<style>{css}</style><section class="hero"><div class="image"><b>{words}</b></div></section>"""


def file_of(rendition) -> bytes:
    """What the file carries of the ramp."""
    whole = Image.open(io.BytesIO(RAMP)).convert("RGB")
    c = rendition.crop
    cut = whole.crop((c.x, c.y, c.x + c.w, c.y + c.h))
    size = (rendition.width_px, rendition.height_px)
    return png(np.asarray(cut.resize(size, Image.Resampling.BICUBIC)))


def put(shelf: Shelf, where: str, files) -> None:
    for r in (r for _, made in files for r in made):
        shelf.put(f"/{where}/images/{r.name}", file_of(r), "image/png")


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_rules_show_in_an_element_of_the_host_what_the_picture_would(
    browser: Browser, shelf: Shelf, style
):
    held = {
        "D": m.Treatment(original=1, height=m.ViewportHeight(percent=60)),
        "C": m.Treatment(height=m.RatioHeight(w=3, h=1), aim=m.FixedAim(x=0.9, y=0.2)),
        "A": m.Treatment(show="colour", background="#224466"),
    }
    site = m.Site(formats=("jpeg",), media_style=style)
    made = m.Placement(name="Quay", parts=(m.Part(treatments=held),), target=".hero > .image")
    found = plan(site, made, {1: QUAY})
    files = renditions(found)
    put(shelf, style, files)
    rules = text_of(rules_lines(found, files, addresses_of(found)))
    own = page_html("Quay", [text_of(placement_lines(found, files))])
    shelf.put(f"/{style}/picture.css", text_of(css_lines(found, files)), "text/css")
    urls = [
        shelf.put(f"/{style}/own.html", own, "text/html"),
        shelf.put(f"/{style}/host.html", HOST.format(css=rules, words=""), "text/html"),
    ]
    for width, height in ((390, 844), (599, 900), (800, 600), (1400, 900), (1800, 900)):
        shots, boxes = [], []
        for url in urls:
            page = browser.new_page(viewport={"width": width, "height": height})
            fetched: list[str] = []
            page.on(
                "request", lambda r, f=fetched: f.append(r.url) if "/images/" in r.url else None
            )
            page.goto(url, wait_until="networkidle")
            box = page.locator(".quay, .image").first.bounding_box()
            boxes.append((box["width"], box["height"]))
            shots.append(pixels_of(captured(page)))
            assert len(fetched) == (0 if width <= 599 else 1), fetched
            page.close()
        assert boxes[0] == pytest.approx(boxes[1], abs=0.1)
        apart = np.abs(shots[0] - shots[1]).max(axis=2)
        assert (apart <= 3).mean() > 0.99, (width, float((apart <= 3).mean()))
    words = shelf.put(f"/{style}/words.html", HOST.format(css=rules, words="Boats"), "text/html")
    page = browser.new_page(viewport={"width": 1400, "height": 900})
    page.goto(words, wait_until="networkidle")
    white = (pixels_of(captured(page))[:40, :130] > 250).all(axis=2)
    assert white.mean() > 0.05, "words of the host do not lie over the picture"
    page.close()


def test_an_area_is_seen_in_a_view_just_where_nothing_else_is_said(browser: Browser, shelf: Shelf):
    held = {
        "D": m.Treatment(original=1, height=m.ViewportHeight(percent=55)),
        "C": m.Treatment(height=m.RatioHeight(w=5, h=2)),
        "B": m.Treatment(height=m.RatioHeight(w=1, h=1)),
        "A": m.Treatment(height=m.RatioHeight(w=1, h=2)),
    }
    views = (m.View(name="Low", to_px=1400), m.View(name="High"))
    host = m.Host(takes="views", views=views)
    site = m.Site(formats=("jpeg",), hand_over=m.HandOver(host=host))
    found = plan(site, m.Placement(name="Quay", parts=(m.Part(treatments=held),)), {1: QUAY})
    files = renditions(found)
    put(shelf, "views", files)
    of = {r.name: r for _, made in files for r in made}
    told = sheet_of(found, files, host)
    said = {lack.sentence: lack.runs for lack in told.lacks}
    cut = said.get("Mast is cut or too small.", ())
    assert cut, "nothing is cut anywhere"
    edges = {w + d for run in cut for w in run for d in (-8, -1, 1, 8)}
    own = {
        p.span.first + i: code == 0
        for p in found.parts[0].shown
        for i, code in enumerate(fate_codes(p, MAST)[0])
    }
    found_cut = []
    for width in sorted(
        {320, 480, 599, 600, 800, 1000, 1100, 1300, 1400, 1401, 1500, 1600, 2200} | edges
    ):
        if width not in own or not own[width]:
            continue
        row = next(r for r in told.rows if r.first <= width <= r.last)
        file = of[row.file]
        x, y = row.position
        height = (
            f"height: {row.height}"
            if "vh" in row.height
            else f"aspect-ratio: {row.height.replace(':', ' / ')}"
        )
        html = (
            "<!doctype html><style>body { margin: 0 } img { display: block; width: 100%;"
            f" {height}; object-fit: cover; object-position: {x}% {y}%; }}</style>"
            f'<img src="images/{row.file}">'
        )
        # the height that is typical there
        page = browser.new_page(viewport={"width": width, "height": _height(site, width)})
        page.goto(shelf.put("/views/page.html", html, "text/html"), wait_until="networkidle")
        box = page.locator("img").bounding_box()
        assert row.frame_w[0] - 1 <= box["width"] <= row.frame_w[1] + 1
        shot = pixels_of(captured(page, clip=box, full_page=True))
        page.close()
        x0, x1, y0, y1 = seen_window(shot)
        out = max(x0 - MAST.rect.x, MAST.rect.x1 - x1, y0 - MAST.rect.y, MAST.rect.y1 - y1)
        is_said = any(a <= width <= b for a, b in cut)
        # a level of the ramp, and a half: the area's edge mostly lies on the frame's
        near_end = any(abs(width - end) <= 8 for run in cut for end in run)
        if abs(out) < 0.006 and near_end:
            continue
        found_cut.append(is_said)
        assert is_said == (out >= 0.006), (width, out, cut, file.name)
    assert found_cut.count(True) >= 3 and found_cut.count(False) >= 3


def _height(site: m.Site, width: int) -> int:
    return next(h.typical_px for h in site.heights if width <= h.to_px)
