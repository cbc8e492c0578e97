"""The design under the stage: brought, seen through, drawn on, removed and put back."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from accessible import axe_clean
from making import Maker, comes, picture, saved
from playwright.sync_api import Page, expect


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def on_stage(page: Page) -> None:
    page.get_by_label("What stands here").get_by_text("stage", exact=True).click()


@pytest.fixture
def quay(maker: Maker) -> int:
    site = maker.site("Shingle Bay")
    original = maker.original(site, "quay.jpg", picture(2400, 1600), None)
    home = maker.ask("POST", f"/sites/{site}/pages", data={"title": "Tour"})["id"]
    held = {"original": original, "height": {"kind": "ratio", "w": 2, "h": 1}}
    body = {"name": "Quay", "kind": "picture", "parts": [{"treatments": {"D": held}}]}
    made = maker.ask("POST", f"/pages/{home}/placements", data={"placement": body})["id"]
    maker.page.goto(f"{maker.address}/sites/{site}/placements/{made}/frame?width=1440&span=C")
    on_stage(maker.page)
    return made


def bring(page: Page, width: int, height: int, name: str) -> None:
    with page.expect_file_chooser() as chosen:
        page.get_by_role("button", name="the design of this width…").click()
    chosen.value.set_files(
        {"name": name, "mimeType": "image/png", "buffer": picture(width, height, kind="PNG")}
    )


def test_a_spot_is_read_off_the_design(page: Page, maker: Maker, quay: int):
    expect(page.get_by_role("slider", name="Lower edge")).to_be_visible(timeout=15_000)
    bring(page, 2880, 1800, "home 首页@2x.png")
    expect(page.get_by_text("home 首页@2x.png")).to_be_visible(timeout=15_000)
    # 2880 px are 1440 at 2x (common practice)
    expect(page.get_by_label("Width that the design was drawn for")).to_have_value("1440")
    layer = page.locator("img[data-lies]")
    expect(layer).to_have_attribute("data-lies", "over")
    axe_clean(page)
    page.get_by_label("How the design lies").get_by_text("difference").click()
    expect(layer).to_have_attribute("data-lies", "difference")
    # 720 of 1440 px from the left, 360 px high: half the page, 2:1
    page.get_by_role("button", name="draw a spot").click()
    box = layer.bounding_box()
    assert box is not None
    scale = box["width"] / 1440
    page.mouse.move(box["x"] + 1, box["y"] + 40 * scale)
    page.mouse.down()
    page.mouse.move(box["x"] + 720 * scale, box["y"] + 400 * scale, steps=4)
    page.mouse.up()
    rules = page.get_by_role("region", name="Frame rules that give what was drawn")
    first = rules.get_by_role("listitem").first.get_by_role("button")
    expect(first).to_be_visible()
    sentence = first.inner_text()
    first.click()
    expect(rules).to_have_count(0)
    saved(page)

    def own() -> dict:
        stored = maker.ask("GET", f"/placements/{quay}")["placement"]
        return stored["parts"][0]["treatments"].get("C", {})

    held = comes(own, lambda c: "width" in c)
    assert held["stands"] == "start" and held["width"]["kind"] in ("share", "columns", "fixed")
    assert sentence


def draw(page: Page, left: int, right: int) -> None:
    """On a design of 1280 px, from 60 to 260 px down."""
    page.get_by_role("button", name="draw a spot").click()
    box = page.locator("img[data-lies]").bounding_box()
    assert box is not None
    scale = box["width"] / 1280
    page.keyboard.down("Shift")
    page.mouse.move(box["x"] + left * scale, box["y"] + 60 * scale)
    page.mouse.down()
    page.mouse.move(box["x"] + right * scale, box["y"] + 260 * scale, steps=3)
    page.mouse.up()
    page.keyboard.up("Shift")
    rules = page.get_by_role("region", name="Frame rules that give what was drawn")
    rules.get_by_role("listitem").last.get_by_role("button").click()
    expect(rules).to_have_count(0)


def test_edges_that_spots_share_become_the_site_s_container(page: Page, maker: Maker, quay: int):
    stored = maker.ask("GET", f"/placements/{quay}")
    home, noun = stored["page_id"], {**stored["placement"], "name": "Second"}
    second = maker.ask("POST", f"/pages/{home}/placements", data={"placement": noun})["id"]
    desk = page.url.partition("/placements/")[0] + "/placements"
    page.goto(f"{desk}/{quay}/frame?width=1280&span=C")
    expect(page.get_by_role("slider", name="Lower edge")).to_be_visible(timeout=15_000)
    bring(page, 1280, 900, "home.png")
    expect(page.get_by_label("Width that the design was drawn for")).to_have_value("1280")
    draw(page, 80, 640)
    page.goto(f"{desk}/{second}/frame?width=1280&span=C")
    expect(page.locator("img[data-lies]")).to_be_visible(timeout=15_000)
    expect(page.get_by_role("slider", name="Lower edge")).to_be_visible()
    draw(page, 640, 1200)
    expect(page.get_by_text(re.compile("shares a container of 11[12]\\d px"))).to_be_visible()
    page.get_by_role("button", name="make it the site's").click()
    site = int(desk.split("/sites/")[1].split("/")[0])

    def container() -> float:
        return maker.ask("GET", f"/sites/{site}")["plan"]["container"]["max_width_px"]

    assert comes(container, lambda px: px != 1080) == pytest.approx(1120, abs=4)


def test_a_design_of_no_span_asks_for_its_width(page: Page, quay: int):
    expect(page.get_by_role("slider", name="Lower edge")).to_be_visible(timeout=15_000)
    bring(page, 1440, 900, "home.png")
    width = page.get_by_label("Width that the design was drawn for")
    expect(width).to_have_value("1440", timeout=15_000)
    width.fill("5000")
    width.press("Enter")
    expect(page.get_by_text(re.compile("No span of the site has 5000 px"))).to_be_visible()
    again = page.get_by_label("Width that home.png was drawn for")
    again.fill("1280")
    again.press("Enter")
    expect(page.get_by_text("it lies in the middle of 1440 px, unscaled")).to_be_visible()
    page.get_by_role("button", name="remove", exact=True).click()
    expect(page.locator("img[data-lies]")).to_have_count(0)
    page.get_by_role("button", name="put home.png back").click()
    expect(page.locator("img[data-lies]")).to_have_count(1)


def test_what_is_no_design_is_told(page: Page, quay: int):
    expect(page.get_by_role("slider", name="Lower edge")).to_be_visible(timeout=15_000)
    with page.expect_file_chooser() as chosen:
        page.get_by_role("button", name="the design of this width…").click()
    chosen.value.set_files({"name": "notes.png", "mimeType": "image/png", "buffer": b"nothing"})
    expect(page.get_by_role("alert")).to_contain_text("notes.png")
