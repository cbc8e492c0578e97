"""Posts on the horizon and pictures on the desk: what is moved quickly, or while something waits to
be saved, is kept."""

from __future__ import annotations

from collections.abc import Iterator

import pytest
from making import Maker, picture, saved
from playwright.sync_api import Page, expect


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def post(page: Page, letter: str):
    return page.get_by_role("slider", name=f"Breakpoint: last width of span {letter}")


def test_a_post_moved_by_many_keys_is_kept_where_it_ends(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    placement = maker.placement(site, "Quay", {"D": {"height": {"kind": "ratio", "w": 2, "h": 1}}})
    maker.open(site, placement, "width=450", step="frame")
    post(page, "A").focus()
    for _ in range(9):
        page.keyboard.press("ArrowLeft")
    page.wait_for_timeout(120)
    for _ in range(3):
        page.keyboard.press("Shift+ArrowLeft")
    expect(post(page, "A")).to_have_attribute("aria-valuenow", "560")
    maker.comes_to(site, [560, 1023, 1599])
    expect(page.get_by_role("alert")).to_have_count(0)


def test_a_post_that_is_added_while_a_change_waits_loses_nothing(page: Page, maker: Maker):
    site = maker.site("Reed Quay", titles={"A": "phone"})
    original = maker.original(site, "quay.jpg", picture(2400, 1500))
    placement = maker.placement(
        site, "Quay", {"D": {"original": original, "height": {"kind": "ratio", "w": 2, "h": 1}}}
    )
    maker.open(site, placement, "width=450")
    page.get_by_text("contain", exact=True).click()  # not saved yet
    page.get_by_role("button", name="split here").click()
    expect(post(page, "D")).to_be_visible()
    plan = maker.comes_to(site, [450, 599, 1023, 1599])
    assert plan["titles"] == {"B": "phone"}
    # what was A is both now, the wider of which hands it down
    assert maker.own(placement)["B"]["fit"] == "contain"
    # and the desk goes on from there
    page.get_by_text("cover", exact=True).click()
    saved(page)


def test_the_first_picture_serves_every_width_whatever_span_is_chosen(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    placement = maker.placement(site, "3 boats", {})
    maker.open(site, placement, "width=400&span=A")
    file = {"name": "first.jpg", "mimeType": "image/jpeg", "buffer": picture(2400, 1500)}
    page.get_by_label("Bring an original for span A").set_input_files([file])
    expect(page.get_by_text("from D")).to_be_visible()
    expect(page.get_by_text("no picture yet")).to_have_count(0)
    saved(page)
    treatments = maker.own(placement)
    assert [letter for letter, t in treatments.items() if t["original"]] == ["D"]


def test_a_span_that_waits_shows_no_other_span_s_picture(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    original = maker.original(site, "quay.jpg", picture(2400, 1500))
    placement = maker.placement(site, "Quay", {"A": {"original": original}})
    maker.open(site, placement, "width=400&span=A")
    wide = page.frame_locator("iframe[title='First screen at 1280 px']").locator("img")
    narrow = page.frame_locator("iframe[title='First screen at 360 px']").locator("img")
    expect(narrow).to_have_js_property("complete", True)
    assert narrow.evaluate("i => i.currentSrc").find("/preview/") > 0
    assert wide.evaluate("i => i.currentSrc").startswith("data:")
    expect(page.get_by_text("no picture yet").first).to_be_visible()


def test_saved_is_said_in_site(page: Page, maker: Maker, address: str):
    site = maker.site("Reed Quay")
    page.goto(f"{address}/sites/{site}/settings")
    page.get_by_role("textbox", name="Name", exact=True).fill("Reed Quay, spring")
    expect(page.get_by_text("Not saved yet")).to_be_visible()
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def test_a_server_that_fails_is_not_called_offline(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    original = maker.original(site, "quay.jpg", picture(2400, 1500))
    placement = maker.placement(site, "Quay", {"D": {"original": original}})
    maker.open(site, placement, "width=450")
    problem = {
        "status": 503,
        "title": "x",
        "type": "about:blank",
        "detail": "The database cannot be reached.",
    }
    page.route(
        f"**/api/placements/{placement}", lambda route: route.fulfill(status=503, json=problem)
    )
    page.get_by_text("contain", exact=True).click()
    expect(page.get_by_text("Not saved yet, trying again")).to_be_visible()
    page.unroute(f"**/api/placements/{placement}")
    expect(page.get_by_text("Saved", exact=True)).to_be_visible(timeout=15_000)
