"""The stage of Frame: edges pulled by hand, by keys, and typed; one pull is one version."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from accessible import axe_clean
from making import Maker, comes, picture, saved
from playwright.sync_api import Locator, Page, expect

BOAT = {"Boat": (0.7, 0.6, 0.2, 0.3)}


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def on_stage(page: Page) -> None:
    page.get_by_label("What stands here").get_by_text("stage", exact=True).click()


@pytest.fixture
def quay(maker: Maker) -> int:
    """A picture over the whole page, 2:1 in every span, at 1280 px."""
    site = maker.site("Shingle Bay")
    original = maker.original(site, "01 Küste 岬.jpg", picture(3000, 2000), BOAT)
    home = maker.ask("POST", f"/sites/{site}/pages", data={"title": "Tour"})["id"]
    held = {"original": original, "height": {"kind": "ratio", "w": 2, "h": 1}}
    body = {"name": "Quay", "kind": "picture", "parts": [{"treatments": {"D": held}}]}
    made = maker.ask("POST", f"/pages/{home}/placements", data={"placement": body})["id"]
    maker.page.goto(f"{maker.address}/sites/{site}/placements/{made}/frame?width=1280&span=C")
    on_stage(maker.page)
    return made


def grip(page: Page, name: str) -> Locator:
    found = page.get_by_role("slider", name=name, exact=True)
    expect(found).to_be_visible(timeout=15_000)
    expect(found).not_to_have_attribute("data-pale", "true")
    return found


def stored(maker: Maker, placement: int) -> dict:
    return maker.ask("GET", f"/placements/{placement}")["placement"]["parts"][0]["treatments"]


def test_a_lower_edge_is_pulled_and_everything_follows(page: Page, maker: Maker, quay: int):
    low = grip(page, "Lower edge")
    assert low.get_attribute("aria-valuenow") == "640"
    box = low.bounding_box()
    assert box is not None
    assert min(box["width"], box["height"]) >= 24  # WCAG 2.2, 2.5.8
    x, y = box["x"] + box["width"] / 2, box["y"] + box["height"] / 2
    page.mouse.move(x, y)
    page.mouse.down()
    for n in range(1, 11):
        page.mouse.move(x, y - 4 * n)
    expect(page.get_by_text(re.compile(r"^1280 × 5\d\d"))).to_be_visible()
    page.mouse.up()
    saved(page)
    height = comes(lambda: stored(maker, quay), lambda t: "C" in t)["C"]["height"]
    assert height["kind"] == "ratio" and height["w"] / height["h"] > 2.05
    expect(page.get_by_role("button", name="Undo")).to_be_enabled()
    # one pull is one version
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="Undo")).to_be_disabled()
    assert grip(page, "Lower edge").get_attribute("aria-valuenow") == "640"


def test_by_keys_alone(page: Page, maker: Maker, quay: int):
    low = grip(page, "Lower edge")
    low.focus()
    low.press("ArrowDown")
    low.press("Shift+ArrowDown")
    expect(low).to_have_attribute("aria-valuenow", "651")
    saved(page)
    low = grip(page, "Lower edge")
    low.press("Alt+ArrowDown")  # 16:9 of 1280 px
    expect(low).to_have_attribute("aria-valuenow", "720")
    expect(low).to_have_attribute("aria-valuetext", re.compile("16:9"))
    saved(page)
    assert comes(lambda: stored(maker, quay), lambda t: t["C"]["height"]["w"] == 16)
    # Escape takes back what is under way
    grip(page, "Lower edge").press("ArrowUp")
    low.press("Escape")
    expect(low).to_have_attribute("aria-valuenow", "720")
    # Enter types the value in its own unit
    grip(page, "Lower edge").press("Enter")
    field = page.get_by_role("textbox", name="Lower edge")
    field.fill("2,5")
    field.press("Enter")
    expect(grip(page, "Lower edge")).to_have_attribute("aria-valuenow", "512")
    # sides come before the lower edge, in reading order
    names = [g.get_attribute("aria-label") for g in page.get_by_role("slider").all()]
    own = [n for n in names if n in ("Left edge", "Right edge", "Lower edge")]
    assert own == ["Left edge", "Right edge", "Lower edge"]


def test_what_cannot_go_farther_says_why(page: Page, quay: int):
    """Until the next pull; so does a value that is typed and cannot be had."""
    left = grip(page, "Left edge")
    left.focus()
    left.press("ArrowLeft")
    expect(page.get_by_text("from edge to edge is the least")).to_be_visible()
    page.wait_for_timeout(1000)  # longer than a step by keys takes to end
    expect(page.get_by_text("from edge to edge is the least")).to_be_visible()
    expect(left).to_have_attribute("aria-valuenow", "0")
    low = grip(page, "Lower edge")
    low.press("Enter")
    field = page.get_by_role("textbox", name="Lower edge")
    field.fill("-4")
    field.press("Enter")
    expect(page.get_by_role("alert").filter(has_text="cannot be had")).to_be_visible()
    expect(low).to_have_attribute("aria-valuenow", "640")


def test_the_table_is_a_press_away_and_the_stage_is_accessible(page: Page, quay: int):
    grip(page, "Lower edge")
    axe_clean(page)
    page.get_by_label("What stands here").get_by_text("table of spans").click()
    expect(page.get_by_role("table")).to_be_visible()
    expect(page.get_by_role("slider", name="Lower edge")).to_have_count(0)
    page.reload()
    expect(page.get_by_role("table")).to_be_visible()
