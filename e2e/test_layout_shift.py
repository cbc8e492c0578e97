"""Delivered pages while they load: nothing moves (Layout Instability; as Chromium's own
PerformanceObserver has it)."""

from __future__ import annotations

import time

import pytest
from delivered import made, put
from skypane import model as m

ORIGINALS = {
    i: m.Original(id=i, name=f"p{i}.jpg", width_px=w, height_px=h, sha256=f"p{i}", alt=f"View {i}")
    for i, (w, h) in enumerate([(3200, 1800), (6000, 4000), (4032, 3024), (2400, 1800)], 1)
}
ITEMS = {
    i: m.Item(title=f"Where the terns nest, {i}", text="Seen from the jetty at low water. " * i)
    for i in ORIGINALS
}
WORDS = m.Words(
    heading="Boats leave at eight, ten and two",
    text="From April to October, weather permitting: wrap up warm, and bring something to eat.",
    buttons=(m.Button(label="Book a crossing"), m.Button(label="Tides")),
)
BELOW = "<p>What stands under it</p>"
OBSERVED = """() => new Promise((done) => {
  const found = [];
  new PerformanceObserver((list) => found.push(...list.getEntries()))
    .observe({ type: 'layout-shift', buffered: true });
  setTimeout(() => done(found.reduce((sum, e) => sum + e.value, 0)), 400);
})"""

#: Whether every file of a typeface had come a frame before anything was painted.
IN_TIME = """async () => {
  const done = () => performance.getEntriesByName('first-paint').length > 0;
  while (!done()) await new Promise((r) => setTimeout(r, 20));
  const came = performance.getEntriesByType('resource').filter((e) => e.name.endsWith('.woff2'));
  const painted = performance.getEntriesByName('first-paint')[0].startTime;
  return came.every((e) => e.responseEnd + 17 < painted);
}"""

#: A text in the typeface and in what stands in for it, with the line height that a face has itself.
MEASURED = """([typeface, weight, text]) => {
  const families = getComputedStyle(document.querySelector('.nine-words')).fontFamily.split(', ');
  return [families[0], families.slice(1).join(', ')].map((family) => {
    const s = document.body.appendChild(document.createElement('span'));
    s.style.cssText = `font: ${weight} 40px/normal ${family}; position: absolute; white-space: pre`;
    s.textContent = text;
    const { width, height } = s.getBoundingClientRect();
    s.remove();
    return { width, height };
  });
}"""


def slow(page, *kinds: str) -> None:
    """What ends so comes late, once the page has been drawn."""

    def later(route) -> None:
        time.sleep(0.4)
        route.continue_()

    for kind in kinds:
        page.route(f"**/*{kind}", later)


@pytest.mark.parametrize("width", [390, 1280])
@pytest.mark.parametrize("change", ["slide", "fade", "zoom", "none"])
def test_nothing_moves_when_slides_begin(browser, shelf, change, width):
    """The script comes late: until then slides are a row that is scrolled."""
    held = {
        "change": change,
        "gutter_px": 16,
        "by_itself": True,
        "every_s": 1,
        "captions_lie": "on",
    }
    placement = made("slides", ORIGINALS, {"D": held}, ITEMS)
    _, url = put(shelf, placement, ORIGINALS, below=BELOW)
    page = browser.new_page(viewport={"width": width, "height": 900})
    slow(page, ".js")
    page.goto(url)
    page.locator("[data-on]").wait_for()
    page.wait_for_timeout(1500)
    assert page.evaluate(OBSERVED) == 0
    page.close()


def test_nothing_moves_when_the_buttons_of_a_turned_row_come(browser, shelf):
    layout = {"D": {"arranged": "slides", "columns": 2}}
    _, url = put(shelf, made("grid", ORIGINALS, layout, ITEMS), ORIGINALS, below=BELOW)
    page = browser.new_page(viewport={"width": 1280, "height": 1200})
    slow(page, ".js")
    page.goto(url)
    page.locator("[data-on]").wait_for()
    assert page.evaluate(OBSERVED) == 0
    page.close()


@pytest.mark.parametrize("width", [390, 768, 1280])
@pytest.mark.parametrize("typeface", ["Instrument Sans", "Newsreader"])
@pytest.mark.parametrize("kind", ["banner", "grid", "beside"])
def test_nothing_moves_when_the_typeface_comes(browser, shelf, kind, typeface, width):
    """The page asks for it first: where it is there before anything is painted, nothing moves that
    could be seen. Where it comes later (on a busy machine too), words stand in a face of the
    visitor's own until then, set as wide on the whole: a word may end another line, and a button
    be a px wider, which is seen by nobody (0.1 is called good; Web Vitals)."""
    placement = made(
        kind,
        ORIGINALS,
        {"D": {}, "A": {"percent": 90} if kind == "banner" else {"columns": 1}},
        ITEMS,
        shown=(1,) if kind == "banner" else (1, 2, 3, 4),
        **({"words": WORDS} if kind == "banner" else {}),
    )
    _, url = put(shelf, placement, ORIGINALS, site=m.Site(typeface=typeface), below=BELOW)
    page = browser.new_page(viewport={"width": width, "height": 1600})
    for late in (False, True):
        if late:
            slow(page, ".woff2")
        page.goto(url)
        page.evaluate("document.fonts.ready")
        assert page.evaluate("[...document.fonts].some((f) => f.status === 'loaded')")
        in_time = page.evaluate(IN_TIME)
        # read in time, it may be drawn with a frame later
        assert page.evaluate(OBSERVED) <= (0.001 if in_time else 0.005), in_time
    page.close()


def test_a_fallback_is_as_wide_and_as_high_as_the_typeface(browser, shelf):
    """Within 1 % over a text, for every weight, in the fonts that this machine has."""
    text = "Boats leave at eight, ten and two, from April to October, weather permitting."
    for typeface in ("Instrument Sans", "Newsreader"):
        words = m.Words(heading=text, text=text)
        placement = made("banner", ORIGINALS, {"D": {}}, shown=(1,), words=words)
        _, url = put(shelf, placement, ORIGINALS, site=m.Site(typeface=typeface))
        page = browser.new_page(viewport={"width": 1280, "height": 900})
        page.goto(url)
        page.evaluate("document.fonts.ready")
        for weight in (400, 700):
            own, fallback = page.evaluate(MEASURED, [typeface, weight, text])
            assert fallback["width"] == pytest.approx(own["width"], rel=0.01), (typeface, weight)
            assert fallback["height"] == pytest.approx(own["height"], abs=1), (typeface, weight)
        page.close()
