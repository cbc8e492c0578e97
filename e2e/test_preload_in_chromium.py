"""A picture that is asked for early is fetched once, as the file that the page then takes (HTML
Standard §4.6.8.17); and nothing moves while it comes."""

from __future__ import annotations

import pytest
from conftest import Shelf
from delivered import PX
from playwright.sync_api import Browser
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.markup.css import css_lines
from skypane.markup.html import html_of
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.markup.preload import preload_links
from skypane.picks import Environment, pick
from skypane.picks.background import pick_background, read_background
from skypane.shown.plan import plan

ORIGINALS = {
    i: m.Original(id=i, name=f"{i}.jpg", width_px=6000, height_px=4000, sha256=str(i), alt="")
    for i in (1, 2)
}
SHIFTS = """() => new Promise(done => {
  let sum = 0;
  new PerformanceObserver(l => { for (const e of l.getEntries()) sum += e.value; })
    .observe({ type: "layout-shift", buffered: true });
  setTimeout(() => done(sum), 100);
})"""


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
@pytest.mark.parametrize("way", ["picture", "background"])
def test_the_first_picture_is_fetched_once(browser: Browser, shelf: Shelf, style, way):
    usual = {
        "D": m.Treatment(original=1, height=m.RatioHeight(w=5, h=2)),
        "A": m.Treatment(height=m.RatioHeight(w=4, h=5)),
    }
    parts = (
        m.Part(key="quay", treatments=usual, way=way),
        m.Part(of="quay", when=("dark",), treatments={"B": m.Treatment(original=2)}),
    )
    site = m.Site(media_style=style, hand_over=m.HandOver(preload=True))
    found = plan(site, m.Placement(name="Quay", parts=parts), ORIGINALS)
    files = renditions(found)
    markup, css = text_of(placement_lines(found, files)), text_of(css_lines(found, files))
    rules = read_background(css, ".quay::before")
    first = html_of().lines(preload_links(found, files))
    assert len(first) > 3
    where = f"{style}-{way}"
    for r in (r for _, mine in files for r in mine):
        shelf.put(f"/{where}/images/{r.name}", PX, "image/png")
    shelf.put(f"/{where}/picture.css", css, "text/css")
    url = shelf.put(f"/{where}/page.html", page_html("Quay", [markup], first=first), "text/html")
    for scheme in ("light", "dark"):
        for density in (1, 2):
            context = browser.new_context(color_scheme=scheme, device_scale_factor=density)
            for width in (320, 599, 600, 1023, 1024, 2000):
                page = context.new_page()
                page.set_viewport_size({"width": width, "height": 700})
                asked: list[str] = []
                told: list[str] = []
                page.on("request", lambda r, asked=asked: asked.append(r.url))
                page.on("console", lambda e, told=told: told.append(e.text))
                page.goto(url, wait_until="networkidle")
                env = Environment(width, 700, density, scheme)
                wanted = (
                    pick_background(rules, env).url
                    if way == "background"
                    else pick(markup, env).url
                )
                fetched = [a.split(f"/{where}/")[1] for a in asked if "/images/" in a]
                assert fetched == [wanted], (width, density, scheme)
                assert page.evaluate(SHIFTS) == 0
                # a preload that nothing takes is told of
                assert not [t for t in told if "preload" in t]
                page.close()
            context.close()
