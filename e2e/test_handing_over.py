"""In the browser: hosts that take no markup, what is seen until pictures are there, drawings in the
page, originals that belong together, and the colours of pages."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from accessible import axe_clean
from making import Maker, picture, saved
from playwright.sync_api import Page, expect

TERN = b"""<svg xmlns="http://www.w3.org/2000/svg" width="300" height="200" viewBox="0 0 300 200">
<path d="M20 180 L150 20 L280 180 Z" fill="#123456"/></svg>"""
HERO = (
    '<main><section class="hero wide"><h1>Boats</h1></section><section class="hero"></section>'
    "</main>"
)


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def quay(maker: Maker) -> tuple[int, int]:
    site = maker.site("Reed Quay")
    maker.original(site, "quay.jpg", picture(900, 600))
    maker.original(site, "quay-night.jpg", picture(800, 600))
    originals = {o["name"]: o["id"] for o in maker.ask("GET", f"/sites/{site}/originals")}
    ratio = {"kind": "ratio", "w": 2, "h": 1}
    own = {"original": originals["quay.jpg"], "height": ratio}
    return site, maker.placement(site, "Quay", {"D": own})


def test_a_host_with_views_is_given_a_sheet_and_told_what_it_cannot_do(page: Page, maker: Maker):
    site, placement = quay(maker)
    page.goto(f"{maker.address}/sites/{site}/settings")
    page.get_by_label("What shows the pages takes").select_option("views")
    page.get_by_label("Greatest width of view 1").fill("500")
    page.get_by_role("button", name="Remove view 2").click()
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("button", name="Save", exact=True)).to_be_disabled()
    maker.open(site, placement, step="code")
    sheet = page.get_by_role("table").filter(has_text="Phone")
    expect(sheet.get_by_role("columnheader", name="Phone, 320 to 500 px")).to_be_visible()
    expect(sheet.get_by_role("row", name="File")).to_contain_text(".jpg")
    lacks = page.get_by_role("region", name="What the host cannot do")
    expect(lacks).to_contain_text("there is no list of sizes and formats. at 320 to 2560 px")
    axe_clean(page)
    with page.context.expect_page() as opened:
        page.get_by_role("link", name="to print").click()
    printed = opened.value
    expect(printed.get_by_role("heading", name="Quay")).to_be_visible()
    expect(printed.get_by_role("rowheader", name="Alt text")).to_be_visible()
    printed.close()
    page.get_by_role("radiogroup", name="Kind of code").get_by_text("HTML", exact=True).click()
    expect(page.locator("figure pre").first).to_contain_text("<picture")


def test_a_host_that_takes_rules_is_given_them_for_its_element(page: Page, maker: Maker):
    site, placement = quay(maker)
    plan = maker.ask("GET", f"/sites/{site}")
    told = {**plan["plan"], "hand_over": {**plan["plan"]["hand_over"], "host": {"takes": "rules"}}}
    body = {"name": plan["name"], "revision": plan["revision"], "plan": told}
    maker.ask("PUT", f"/sites/{site}", data=body)
    maker.open(site, placement, step="code")
    expect(page.get_by_text("Nobody has said yet which element")).to_be_visible()
    selector = page.get_by_label("Element of the host, as a selector")
    selector.fill(".hero, .other")
    selector.press("Enter")
    expect(page.get_by_text("without a comma").first).to_be_visible()
    selector.fill("main > .hero")
    selector.press("Enter")
    expect(page.locator("figure pre").first).to_contain_text("main > .hero::before {")
    saved(page)
    page.get_by_label("A page of the host, as HTML").fill(HERO)
    page.get_by_role("button", name="What do they hit?").click()
    hits = page.get_by_role("status").filter(has_text="2 elements")
    expect(hits).to_contain_text("main > section.hero.wide")
    expect(page.get_by_text("It has no alt text")).to_be_visible()
    axe_clean(page)


def test_until_it_is_there_it_is_blurred_and_another_one_shows_where_it_fails(
    page: Page, maker: Maker
):
    site, placement = quay(maker)
    maker.open(site, placement, step="code")
    page.get_by_role("radiogroup", name="Until it is there").get_by_text("blurred").click()
    expect(page.get_by_text("of the style sheet")).to_be_visible()
    expect(page.locator("figure pre").nth(1)).to_contain_text("data:image/png;base64,")
    page.get_by_role("button", name="Show another picture").click()
    page.get_by_role("button", name="quay-night.jpg").click()
    expect(page.get_by_text("quay-night.jpg shows, put there by a line of script")).to_be_visible()
    expect(page.get_by_text("Puts another picture in the place of one")).to_be_visible()
    axe_clean(page)
    saved(page)
    kept = maker.kept(placement)["placement"]
    assert kept["blurred"] and kept["substitute"]
    pane = page.frame_locator("iframe[title='First screen at 1280 px']")
    page.keyboard.press("Escape")
    page.keyboard.press("p")
    expect(
        page.locator("[data-verdict]")
        .get_by_text("blurred")
        .first.or_(page.get_by_text("blurred", exact=True).nth(1))
    ).to_be_visible()
    page.keyboard.press("p")
    expect(page.get_by_text("another picture").first).to_be_visible()
    shown = pane.locator("picture img")
    expect(shown).to_have_attribute(
        "src", f"/api/originals/{kept['substitute']}/preview/1600" + _v(shown.get_attribute("src"))
    )
    page.get_by_role("button", name="alt text alone").click()
    saved(page)
    assert maker.kept(placement)["placement"]["substitute"] is None


def _v(src: str | None) -> str:
    return f"?{(src or '').partition('?')[2]}"


def test_a_small_drawing_is_written_into_the_page(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    maker.original(site, "tern.svg", TERN)
    (original,) = maker.ask("GET", f"/sites/{site}/originals")
    own = {"original": original["id"], "fit": "contain", "height": {"kind": "natural"}}
    placement = maker.placement(site, "Tern", {"D": own})
    maker.open(site, placement, step="code")
    ways = page.get_by_role("radiogroup", name="Written as")
    ways.get_by_text("svg", exact=True).click()
    expect(page.locator("figure pre").first).to_contain_text('fill="currentColor"')
    expect(page.get_by_text("Chosen: it has the colour of the text around it.")).to_be_visible()
    expect(page.get_by_text("no cache keeps it")).to_be_visible()
    axe_clean(page)
    pane = page.frame_locator("iframe[title='First screen at 1280 px']")
    expect(pane.locator("span.tern > svg path")).to_have_count(1)
    # nothing has to be made of it, and nothing is missing
    maker.open(site, placement, step="files")
    expect(page.get_by_text("Tern").first).to_be_visible()


def test_a_night_version_is_proposed_where_its_day_shows(page: Page, maker: Maker):
    site, placement = quay(maker)
    page.goto(f"{maker.address}/sites/{site}/originals")
    page.get_by_text("quay-night.jpg").click()
    chosen = page.get_by_label("A version of").first
    chosen.click()
    page.get_by_role("option", name="quay.jpg").click()
    expect(page.get_by_role("combobox", name="When it shows in the place")).to_be_visible()
    axe_clean(page)
    maker.open(site, placement)
    expect(page.get_by_text("quay-night.jpg is its version in the dark.")).to_be_visible()
    page.get_by_role("button", name="show it then").click()
    expect(page.get_by_role("combobox", name="What shows in the dark")).to_have_value(
        "another picture"
    )
    expect(page.get_by_text("is its version in the dark")).to_have_count(0)
    saved(page)
    parts = maker.kept(placement)["placement"]["parts"]
    assert parts[1]["when"] == ["dark"] and parts[1]["of"] == parts[0]["key"]


def test_pages_have_colours_and_others_in_the_dark(page: Page, maker: Maker):
    site, placement = quay(maker)
    page.goto(f"{maker.address}/sites/{site}/settings")
    row = page.get_by_role("region", name="Pages")
    row.get_by_label("Ground", exact=True).fill("#eef2f0")
    row.get_by_label("Other colours in the dark").check()
    row.get_by_label("Ground in the dark").fill("#101418")
    page.get_by_role("button", name="Save", exact=True).click()
    expect(page.get_by_role("button", name="Save", exact=True)).to_be_disabled()
    maker.open(site, placement)
    body = page.frame_locator("iframe[title='First screen at 1280 px']").locator("body")
    expect(body).to_have_css("background-color", "rgb(238, 242, 240)")
    page.keyboard.press("n")
    expect(body).to_have_css("background-color", "rgb(16, 20, 24)")


def test_bands_follow_the_formats_that_are_known(page: Page, maker: Maker):
    site, placement = quay(maker)
    maker.open(site, placement)
    page.keyboard.press("f")
    expect(page.get_by_role("button", name="no AVIF F")).to_have_attribute("aria-pressed", "true")
    page.keyboard.press("f")
    expect(page.get_by_role("button", name="no WebP F")).to_have_attribute("aria-pressed", "true")
    expect(page).to_have_url(re.compile("jpeg"))
