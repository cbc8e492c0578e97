"""A page as it is seen under conditions, in a browser: in the dark, upright, without its
pictures."""

from __future__ import annotations

import re
from collections.abc import Callable, Iterator

import pytest
from accessible import axe_clean
from banners import HEADING
from making import Maker, comes, picture, saved
from playwright.sync_api import Page, expect


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def quay(maker: Maker, **values: object) -> tuple[int, int, int, int]:
    """A banner with white words on a dark picture, and another, light one for the night."""
    site = maker.site("Reed Quay")
    day = maker.original(site, "day.jpg", picture(1600, 1000))
    night = maker.original(site, "night.jpg", picture(1600, 1000, spots=((0, 0, 1, 1),)))
    page = maker.ask("POST", f"/sites/{site}/pages", data={"title": "Home"})["id"]
    usual = {
        "original": day,
        "height": {"kind": "ratio", "w": 2, "h": 1},
        "background": "#203040",
    }
    noun = {
        "name": "Quay",
        "kind": "banner",
        "words": {"heading": HEADING, "text": "", "buttons": []},
        "parts": [{"key": "quay", "treatments": {"D": usual}}],
        "layout": {"D": {"scrim": {"kind": "plain", "colour": "#000000"}, "strength": 0.9}},
        **values,
    }
    made = maker.ask("POST", f"/pages/{page}/placements", data={"placement": noun})
    return site, made["id"], day, night


def until(holds: Callable[[], bool]) -> bool:
    return comes(holds, bool)


def pane(page: Page, width: int = 1280):
    return page.frame_locator(f'iframe[title="First screen at {width} px"]').first


def shown(page: Page, width: int = 1280) -> str:
    """The address of the picture that a pane shows."""
    return pane(page, width).locator("picture img").first.evaluate("e => e.currentSrc")


def test_another_picture_for_the_dark_is_chosen_and_seen_whatever_this_browser_asks_for(
    page: Page, maker: Maker
):
    site, placement, day, night = quay(maker)
    maker.open(site, placement, "width=1280")
    pane(page).locator("picture img").first.wait_for()
    # which file it takes is known a moment after it is there (HTML Standard §4.8.4.3.5)
    assert until(lambda: f"/originals/{day}/" in shown(page))
    # by its key, and by its word
    page.keyboard.press("n")
    dark = page.get_by_role("button", name="dark N")
    expect(dark).to_have_attribute("aria-pressed", "true")
    expect(page).to_have_url(re.compile("seen=dark"))
    expect(page.get_by_text("as usual in the dark")).to_be_visible()
    page.get_by_role("button", name="Another…").click()
    page.get_by_role("button", name="night.jpg").click()
    saved(page)
    parts = maker.kept(placement)["placement"]["parts"]
    assert (parts[1]["of"], parts[1]["when"]) == ("quay", ["dark"])
    assert until(lambda: f"/originals/{night}/" in shown(page))
    dark.click()
    assert until(lambda: f"/originals/{day}/" in shown(page))
    page.emulate_media(color_scheme="dark")
    page.wait_for_timeout(200)
    assert f"/originals/{day}/" in shown(page)
    page.emulate_media(color_scheme="light")
    # to the part that shows in the dark is to the dark, and back
    page.get_by_role("tab", name="in the dark").click()
    expect(dark).to_have_attribute("aria-pressed", "true")
    page.get_by_role("tab", name="picture").click()
    expect(dark).to_have_attribute("aria-pressed", "false")
    axe_clean(page)


def test_colours_of_words_are_others_in_the_dark_and_what_is_wrong_there_leads_there(
    page: Page, maker: Maker
):
    # black words for the dark, where the scrim is as dark as by day
    under = [{"when": ["dark"], "layout": {"D": {"colour": "#000000"}}}]
    site, placement, *_ = quay(maker, layout_under=under)
    maker.open(site, placement, "width=1700", "words")
    readable = page.get_by_role("img", name=re.compile("Heading readable"))
    expect(readable).to_have_attribute("data-here", "readable")
    page.get_by_role(
        "button", name=re.compile("In the dark the heading cannot be read")
    ).first.click()
    expect(page.get_by_role("button", name="dark N")).to_have_attribute("aria-pressed", "true")
    expect(readable).to_have_attribute("data-here", "faint")
    heading = pane(page, 1700).get_by_role("heading", name=HEADING)
    assert heading.evaluate("e => getComputedStyle(e).color") == "rgb(0, 0, 0)"
    # mended there, and there alone
    page.get_by_label("Colour of the words", exact=True).fill("#eeeeee")
    expect(readable).to_have_attribute("data-here", "readable")
    saved(page)
    kept = maker.kept(placement)["placement"]
    assert kept["layout_under"][0]["layout"] == {"D": {"colour": "#eeeeee"}}
    assert "colour" not in kept["layout"]["D"]
    # what moves something is for always
    page.get_by_role("radiogroup", name="Alignment").get_by_text("centre").click()
    saved(page)
    kept = maker.kept(placement)["placement"]
    assert kept["layout"]["D"]["align"] == "centre" and "align" not in kept["layout_under"][0]
    page.get_by_role("button", name="Reset colour of span D").click()
    saved(page)
    assert maker.kept(placement)["placement"]["layout_under"] == []


def test_pictures_that_are_not_there_show_their_colour_and_their_alt_text(page: Page, maker: Maker):
    site, placement, *_ = quay(maker)
    maker.open(site, placement, "width=1280&seen=coming")
    expect(page.get_by_role("button", name="coming P")).to_have_attribute("aria-pressed", "true")
    picture_ = pane(page).locator("picture").first
    picture_.wait_for()
    assert picture_.evaluate("e => getComputedStyle(e).backgroundColor") == "rgb(32, 48, 64)"
    assert "/originals/" not in shown(page)
    page.keyboard.press("p")
    expect(page.get_by_role("button", name="failed P")).to_be_visible()
    image = pane(page).locator("picture img").first
    expect(image).to_have_attribute("alt", "day.jpg, made up")
    assert until(lambda: image.evaluate("e => e.complete && e.naturalWidth === 0"))
    page.keyboard.press("p")
    assert until(lambda: "/originals/" in shown(page))


def test_screens_that_all_stand_upright_are_seen_so(page: Page, maker: Maker):
    site, placement, *_ = quay(maker)
    maker.open(site, placement, "width=1280")
    page.get_by_text("1280 × 800").wait_for()
    page.keyboard.press("t")
    label = page.get_by_text(re.compile(r"^1280 × \d+$"))
    expect(label).not_to_have_text("1280 × 800")
    assert int(label.inner_text().split("× ")[1]) > 1280
    page.keyboard.press("t")
    expect(page.get_by_role("button", name="lying T")).to_be_visible()
    expect(page.get_by_text("1280 × 800")).to_be_visible()
