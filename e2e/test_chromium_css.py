"""The delivered CSS where a browser lacks what it asks for, and where frames stand; and names of
every kind."""

from __future__ import annotations

import pytest
from skypane.files.renditions import renditions
from skypane.geometry import Rect
from skypane.markup.css import css_lines
from skypane.markup.lines import text_of
from skypane.markup.page import page_html
from skypane.markup.picture import placement_lines
from skypane.model import (
    Area,
    FixedHeight,
    Original,
    Placement,
    RatioHeight,
    ShareWidth,
    Site,
    Treatment,
    picture,
)
from skypane.shown.plan import plan

AREA = Area(name="Mast", rect=Rect(x=0.75, y=0.2, w=0.2, h=0.3))
WIDE = Original(id=1, name="w.png", width_px=1600, height_px=900, focal=(0.3, 0.5), areas=(AREA,))


def delivered(placement: Placement) -> tuple[str, str]:
    plans = plan(Site(), placement, {1: WIDE})
    snippet = text_of(placement_lines(plans, renditions(plans)))
    return page_html(placement.name, [snippet]), text_of(css_lines(plans))


def opened(browser, html: str, css: str, width: int = 1280):
    page = browser.new_page(viewport={"width": width, "height": 800})
    page.set_content(
        html.replace('<link rel="stylesheet" href="picture.css">', f"<style>{css}</style>")
    )
    return page


def test_without_container_units_the_percentage_holds(browser):
    """The same CSS with a unit that no browser knows in place of `cqw` and `cqh`."""
    held = Treatment(original=1, height=FixedHeight(height_px=1200))
    p = picture(name="Quay", treatments={"D": held, "A": Treatment(height=RatioHeight(w=1, h=1))})
    html, css = delivered(p)
    assert "cqw" in css and "@supports" in css
    old = css.replace("cqw", "zqw").replace("cqh", "zqh")
    for width in (500, 700, 1280, 1700):
        page = opened(browser, html, old, width)
        position = page.locator("img").evaluate("i => getComputedStyle(i).objectPosition")
        # in A the file is cut to the one ratio of its frames, and there is nowhere to move it
        assert position.endswith("% 50%") and (position != "50% 50%") == (width > 599), (
            width,
            position,
        )
        page.close()
        page = opened(browser, html, css, width)
        known = page.locator("img").evaluate("i => getComputedStyle(i).objectPosition")
        assert ("px" in known or "calc" in known or "min" in known) == (width > 599), (width, known)
        page.close()


@pytest.mark.parametrize(
    ("stands", "of", "left"),
    [
        ("start", "page", 0),
        ("centre", "page", 320),
        ("end", "page", 640),
        ("start", "container", 100),
        ("centre", "container", 370),
        ("end", "container", 640),
    ],
)
def test_a_frame_stands_where_it_is_put(browser, stands, of, left):
    """1280 wide: half of the page is 640; the container is 1080 wide, 100 px from both edges, half
    of it 540."""
    t = Treatment(
        original=1, width=ShareWidth(percent=50, of=of), height=RatioHeight(w=2, h=1), stands=stands
    )
    page = opened(browser, *delivered(picture(name="Quay", treatments={"D": t})))
    box = page.locator("picture").bounding_box()
    assert (box["x"], box["width"]) == (left, 640 if of == "page" else 540)
    page.close()


@pytest.mark.parametrize("name", ["3 boats", "404", "船", "Лодки", "-", "a/b.c:d"])
def test_rules_of_every_name_are_taken(browser, name):
    page = opened(
        browser,
        *delivered(
            picture(
                name=name, treatments={"D": Treatment(original=1, height=RatioHeight(w=4, h=1))}
            )
        ),
    )
    box = page.locator("picture").bounding_box()
    assert box["height"] == 320
    page.close()
