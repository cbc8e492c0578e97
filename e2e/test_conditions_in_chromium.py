"""Pictures under conditions, asked of Chromium: which file each of the eight combinations takes,
and that it takes no other (HTML Standard §4.8.4.3; Media Queries 5, §12)."""

from __future__ import annotations

import itertools

import pytest
from conftest import Shelf
from delivered import PX, put
from playwright.sync_api import Browser
from skypane import model as m
from skypane.files.renditions import renditions
from skypane.layouts import begun
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.pane import pane_lines
from skypane.markup.picture import placement_lines
from skypane.picks import Environment, pick
from skypane.shown.plan import plan
from skypane.shown.under_conditions import placement_seen

SITE = m.Site(breakpoints=(599,), formats=("jpeg",), densities=(1,))
SETS = [
    tuple(f for f, holds in zip(m.FEATURES, said, strict=True) if holds)
    for said in itertools.product((False, True), repeat=3)
]
ORIGINALS = {
    i: m.Original(id=i, name=f"{i}.jpg", width_px=3000, height_px=2000, sha256=str(i), alt="")
    for i in range(1, 5)
}


def placement(kind: str) -> m.Placement:
    """By day, at night, at night on its side, and at rest; on narrow screens no night."""
    usual = {"B": m.Treatment(original=1, height=m.RatioHeight(w=3, h=2))}
    square = m.RatioHeight(w=1, h=1)
    others = (
        (("dark",), {"B": m.Treatment(original=2), "A": m.Treatment(show="usual")}),
        (("dark", "portrait"), {"B": m.Treatment(original=3, height=square)}),
        (("still",), {"B": m.Treatment(original=4)}),
    )
    parts = [m.Part(of="quay", when=when, treatments=own) for when, own in others]
    made = m.Placement(name="Quay", parts=(m.Part(key="quay", treatments=usual), *parts))
    return begun(kind, SITE, made) if kind != "picture" else made


@pytest.mark.parametrize("kind", ["picture", "banner", "grid"])
def test_each_combination_takes_one_file_the_one_that_is_predicted(
    browser: Browser, shelf: Shelf, kind: str
):
    found, url = put(shelf, placement(kind), ORIGINALS, site=SITE)
    markup = text_of(placement_lines(found, renditions(found)))
    for file in (r for _, mine in renditions(found) for r in mine):
        shelf.put(f"/images/{file.name}", PX, "image/png")
    for features in SETS:
        scheme = "dark" if "dark" in features else "light"
        motion = "reduce" if "still" in features else "no-preference"
        context = browser.new_context(color_scheme=scheme, reduced_motion=motion)
        for width in (500, 1000):
            height = width + 100 if "portrait" in features else width - 100
            # what reads ahead knows nothing of what is emulated once a page is there
            page = context.new_page()
            page.set_viewport_size({"width": width, "height": height})
            asked: list[str] = []
            page.on("request", lambda r, asked=asked: asked.append(r.url))
            page.goto(url)
            page.wait_for_function("document.querySelector('picture img').complete")
            env = Environment(
                width=width, height=height, color_scheme=scheme, reduced_motion=motion
            )
            fetched = [a.split("/images/")[1] for a in asked if "/images/" in a]
            assert [f"images/{name}" for name in fetched] == [pick(markup, env).url], features
            if kind == "picture" and width == 1000:
                upright = "dark" in features and "portrait" in features
                box = page.eval_on_selector(
                    "picture", "e => [e.clientWidth, e.getBoundingClientRect().height]"
                )
                assert box == pytest.approx([1000, 1000 if upright else 1000 / 1.5], abs=1)
            page.close()
        context.close()


#: What is drawn of a placement: where each element is, its colours, and the picture in it.
DRAWN = """() => [...document.body.querySelectorAll("*")].map(e => {
  const r = e.getBoundingClientRect(), s = getComputedStyle(e), b = getComputedStyle(e, "::before");
  const round = n => Math.round(n * 64) / 64;
  return [e.tagName, round(r.x), round(r.y), round(r.width), round(r.height), s.color,
    s.backgroundColor, s.backgroundImage, b.content, b.backgroundImage, b.backgroundColor,
    s.objectFit, s.objectPosition, e.currentSrc || ""];
}).filter(e => e[0] !== "SOURCE")"""


Screen = tuple[str, str, int, int]


def drawn(browser: Browser, shelf: Shelf, made: m.Placement, screen: Screen):
    """On a screen of a colour scheme, a wish about motion, a width and a height."""
    computed = plan(SITE, made, ORIGINALS)
    html = text_of(
        pane_lines(computed, lambda o, *_: shelf.put(f"/{o.id}.svg", SVG, "image/svg+xml"))
    )
    css = text_of(css_lines(computed, whole=True))
    text = f"<!DOCTYPE html><style>body {{ margin: 0 }} {css}</style>{html}"
    scheme, motion, w, h = screen
    context = browser.new_context(
        color_scheme=scheme, reduced_motion=motion, viewport={"width": w, "height": h}
    )
    page = context.new_page()
    page.goto(shelf.put("/seen.html", text, "text/html"))
    page.wait_for_function("[...document.images].every(i => i.complete)")
    found = page.evaluate(DRAWN)
    context.close()
    return found


SVG = '<svg xmlns="http://www.w3.org/2000/svg" width="30" height="20"/>'


@pytest.mark.parametrize("kind", ["picture", "banner", "grid", "beside"])
def test_what_is_seen_under_conditions_is_what_they_draw(browser: Browser, shelf: Shelf, kind: str):
    """A pane of the placement as it is seen, where nothing is asked for, is drawn as the placement
    itself is where the conditions hold."""
    made = placement(kind)
    if kind == "banner":
        scrim = {"scrim": {"kind": "plain", "colour": "#102030"}, "strength": 0.5}
        under = (
            m.LayoutUnder(when=("dark",), layout={"B": {"colour": "#ffee00", **scrim}}),
            m.LayoutUnder(when=("dark", "portrait"), layout={"A": {"colour": "#00eeff"}}),
        )
        words = m.Words(heading="The quay")
        made = made.model_copy(update={"layout_under": under, "words": words})
    for dark, still in itertools.product((False, True), repeat=2):
        conditions = m.Conditions(dark=dark, still=still)
        seen = placement_seen(SITE, made, ORIGINALS, conditions)
        asked = ("dark" if dark else "light", "reduce" if still else "no-preference")
        for w, h in ((500, 400), (500, 900), (1000, 800), (1000, 1000)):
            wanted = drawn(browser, shelf, made, (*asked, w, h))
            found = drawn(browser, shelf, seen, ("light", "no-preference", w, h))
            assert found == wanted, (asked, w, h)
