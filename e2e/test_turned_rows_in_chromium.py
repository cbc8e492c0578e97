"""Rows of a grid that are turned sideways, in Chromium: with buttons, by keyboard, without a
script."""

from __future__ import annotations

import pytest
from accessible import axe_clean
from delivered import made, put
from skypane import model as m

ORIGINALS = {
    i: m.Original(id=i, name=f"p{i}.jpg", width_px=1200, height_px=900, sha256=f"p{i}", alt=f"{i}")
    for i in range(1, 12)
}
LAYOUTS = {
    "side by side": {"D": {"arranged": "slides", "columns": 3}, "A": {"columns": 1}},
    "on pages": {"D": {"arranged": "pages", "columns": 3, "page_of": 6}, "A": {"columns": 2}},
}
SEEN = """() => {
  const row = document.querySelector('.nine').getBoundingClientRect();
  return [...document.querySelectorAll('.nine > li')].flatMap((li, i) => {
    const r = li.getBoundingClientRect();
    return r.left > row.left - 2 && r.right < row.right + 2 ? [i + 1] : [];
  });
}"""
STILL = """() => new Promise((done) => {
  const row = document.querySelector('.nine');
  let at = row.scrollLeft, same = 0;
  const look = () => {
    same = row.scrollLeft === at ? same + 1 : 0;
    at = row.scrollLeft;
    same > 5 ? done(true) : requestAnimationFrame(look);
  };
  look();
})"""


def opened(browser, shelf, layout, width, direction="ltr", **context):
    placement = made("grid", ORIGINALS, layout)
    found, url = put(shelf, placement, ORIGINALS)
    page = browser.new_context(viewport={"width": width, "height": 900}, **context).new_page()
    page.goto(url)
    page.evaluate(f"document.documentElement.dir = '{direction}'")
    return found, page


@pytest.mark.parametrize("direction", ["ltr", "rtl"])
@pytest.mark.parametrize("width", [390, 1280])
@pytest.mark.parametrize("name", LAYOUTS)
def test_every_item_is_reached_page_by_page_and_the_place_is_told(
    browser, shelf, name, width, direction
):
    found, page = opened(browser, shelf, LAYOUTS[name], width, direction)
    spot = next(s for s in found.spots if s.span.first <= width <= s.span.last)
    n = spot.values.columns if name == "side by side" else spot.values.page_of
    pages = -(-len(ORIGINALS) // n)
    on = page.get_by_role("button", name="Next page")
    back = page.get_by_role("button", name="Previous page")
    told, seen = page.locator(".nine-turns output"), []
    assert back.get_attribute("aria-disabled") == "true"
    for i in range(pages):
        assert told.text_content() == f"{i + 1} of {pages}"
        seen += page.evaluate(SEEN)
        if i < pages - 1:
            on.click()
            page.evaluate(STILL)
    assert set(seen) == set(ORIGINALS)
    assert on.get_attribute("aria-disabled") == "true"
    back.focus()
    page.keyboard.press("Enter")
    page.evaluate(STILL)
    assert told.text_content() == f"{pages - 1} of {pages}"
    assert page.evaluate("document.documentElement.scrollWidth") <= width
    axe_clean(page)
    page.context.close()


def test_without_a_script_the_row_is_scrolled(browser, shelf):
    """Nothing that cannot be used is there, and the keyboard reaches all items."""
    _, page = opened(browser, shelf, LAYOUTS["side by side"], 1280, java_script_enabled=False)
    assert page.locator(".nine-turns").is_hidden()
    page.locator(".nine").focus()
    seen = set(page.evaluate(SEEN))
    for _ in range(40):
        page.keyboard.press("ArrowRight")
        page.wait_for_timeout(150)
        seen |= set(page.evaluate(SEEN))
        if len(ORIGINALS) in seen:
            break
    assert seen == set(ORIGINALS)
    page.context.close()
