"""Many pictures in a browser: made, filled, ordered, captioned, and helped where they are cut."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

import pytest
from accessible import axe_clean
from making import Maker, comes, picture, saved
from playwright.sync_api import Page, expect

#: An upright picture that needs four fifths of its height, and three that need nothing.
STACK = {"Stack": (0.1, 0.1, 0.8, 0.8)}


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def gallery(maker: Maker, names: str = "abcd") -> tuple[int, int, list[int]]:
    """A site with a grid of four pictures, the third of them upright."""
    site = maker.site("Shingle Bay")
    sizes = {"c": (900, 1200)}
    originals = [
        maker.original(
            site,
            f"{name}.jpg",
            picture(*sizes.get(name, (1200, 800)), spots=((0.2, 0.2, 0.1 * i, 0.5),)),
            STACK if name == "c" else None,
        )
        for i, name in enumerate(names, 1)
    ]
    page = maker.ask("POST", f"/sites/{site}/pages", data={"title": "Home"})["id"]
    noun: dict[str, Any] = {
        "name": "Four",
        "kind": "grid",
        "parts": [{"treatments": {"D": {"original": o}}} for o in originals],
        "common": {"D": {"height": {"kind": "ratio", "w": 3, "h": 2}}},
        "layout": {"D": {"columns": 3}, "B": {"columns": 2}, "A": {"columns": 1}},
    }
    made = maker.ask("POST", f"/pages/{page}/placements", data={"placement": noun})
    return site, made["id"], originals


def shown(maker: Maker, placement: int) -> list[int]:
    parts = maker.kept(placement)["placement"]["parts"]
    return [p["treatments"]["D"]["original"] for p in parts]


def test_a_grid_is_made_and_filled(page: Page, maker: Maker):
    site = maker.site("Shingle Bay")
    for name in ("buoy.jpg", "2 terns.jpg", "岬.jpg"):
        maker.original(site, name, picture(600, 400, spots=((0.1, 0.1, 0.02 * len(name), 0.2),)))
    maker.ask("POST", f"/sites/{site}/pages", data={"title": "Home"})
    page.goto(f"{maker.address}/sites/{site}/placements")
    page.get_by_role("button", name="+ placement").first.click()
    page.get_by_label("Name, which files will bear too").fill("Things to see")
    page.get_by_label("a grid").check()
    page.get_by_role("button", name="Make it").click()
    page.get_by_role("button", name="Add…").click()
    for name in ("buoy.jpg", "2 terns.jpg", "岬.jpg"):
        page.get_by_role("button", name=re.compile(f"^{name}")).click()
    page.get_by_role("button", name="Add 3 items").click()
    expect(page.get_by_role("tab")).to_have_count(3)
    expect(page.get_by_text("1 of 3")).to_be_visible()
    saved(page)
    page.reload()
    expect(page.get_by_role("tab")).to_have_count(3)
    axe_clean(page)
    # the same picture may be there twice
    page.get_by_role("button", name="Add…").click()
    page.get_by_role("button", name=re.compile("^buoy.jpg")).click()
    page.get_by_role("button", name="Add 1 item").click()
    expect(page.get_by_role("tab")).to_have_count(4)


def test_items_are_ordered_and_removed_by_keys_and_by_drag(page: Page, maker: Maker):
    site, placement, (a, b, c, d) = gallery(maker)
    maker.open(site, placement, "width=1280")
    tabs = page.get_by_role("tab")
    tabs.first.focus()
    page.keyboard.press("ArrowRight")
    expect(tabs.nth(1)).to_have_attribute("aria-selected", "true")
    page.keyboard.press("Alt+ArrowRight")
    saved(page)
    assert shown(maker, placement) == [a, c, b, d]
    tabs.nth(2).focus()
    page.keyboard.press("Delete")
    saved(page)
    assert shown(maker, placement) == [a, c, d]
    first, last = tabs.first.bounding_box(), tabs.nth(2).bounding_box()
    assert first and last
    page.mouse.move(first["x"] + 20, first["y"] + 15)
    page.mouse.down()
    page.mouse.move(first["x"] + 40, first["y"] + 15, steps=4)
    page.mouse.move(last["x"] + 25, last["y"] + 15, steps=8)
    page.mouse.up()
    saved(page)
    assert shown(maker, placement) == [c, d, a]
    for _ in range(3):
        page.get_by_role("button", name="Undo").click()
    saved(page)
    assert shown(maker, placement) == [a, b, c, d]


def test_what_is_cut_is_chosen_and_helped_with_one_press(page: Page, maker: Maker):
    site, placement, _ = gallery(maker)
    maker.open(site, placement, "width=1280")
    together = page.get_by_role("img", name=re.compile("^All 4: "))
    expect(together).to_have_attribute("data-here", "cut")
    expect(page.get_by_text("3 of 4 whole").first).to_be_visible()
    # a press on what fails chooses the first that does
    together.locator("[data-verdict=cut]").first.click()
    expect(page.get_by_text("3 of 4", exact=True)).to_be_visible()
    width = page.get_by_label("Type a viewport width")
    width.fill("1280")
    width.press("Enter")
    advice = page.get_by_role("region", name="Items that are cut")
    expect(advice).to_contain_text("1 of 4 items is cut")
    advice.get_by_role("button", name=re.compile("^All items ")).click()
    expect(together).to_have_attribute("data-here", "whole")
    saved(page)
    kept = maker.kept(placement)["placement"]
    heights = {letter: held["height"] for letter, held in kept["common"].items()}
    assert heights["C"]["w"] / heights["C"]["h"] < 1.25
    # the wider span is as it was, and what is narrower is handed it down
    assert (heights["D"]["w"], heights["D"]["h"]) == (3, 2) and set(heights) == {"C", "D"}
    page.get_by_role("button", name="Undo").click()
    advice.get_by_role("button", name="Show it whole").click()
    expect(together).to_have_attribute("data-here", "whole")
    saved(page)
    assert maker.kept(placement)["placement"]["parts"][2]["treatments"]["C"]["fit"] == "contain"


def test_values_are_set_for_one_or_for_all(page: Page, maker: Maker):
    site, placement, _ = gallery(maker)
    maker.open(site, placement, "width=1280&part=2")
    page.get_by_role("radiogroup", name="Fit").get_by_text("contain").click()
    saved(page)
    kept = maker.kept(placement)["placement"]
    assert kept["parts"][1]["treatments"]["C"]["fit"] == "contain" and "C" not in kept["common"]
    page.get_by_role("radiogroup", name="Whose values are set").get_by_text("all 4").click()
    page.get_by_role("radiogroup", name="Fit").get_by_text("cover").click()
    saved(page)
    kept = maker.kept(placement)["placement"]
    assert kept["common"]["C"]["fit"] == "cover"
    assert not any((p["treatments"].get("C") or {}).get("fit") for p in kept["parts"])


def test_all_items_are_cropped_to_a_ratio_at_once(page: Page, maker: Maker):
    site, placement, _ = gallery(maker)
    maker.open(site, placement, "width=1280")
    page.get_by_role("radiogroup", name="Whose values are set").get_by_text("all 4").click()
    page.get_by_role("button", name="1:1", exact=True).click()

    def crops() -> list[dict]:
        parts = maker.kept(placement)["placement"]["parts"]
        return [c for p in parts if (c := (p["treatments"].get("C") or {}).get("crop"))]

    # the strip's area is wider than a square of it can be
    expect(
        page.get_by_text(re.compile(r"^1 item kept as it is\. .*a crop of 1:1 has"))
    ).to_be_visible()
    assert len(comes(crops, lambda found: len(found) == 3)) == 3
    page.get_by_role("button", name="none", exact=True).click()
    whole = comes(crops, lambda found: len(found) == 4)
    assert len(whole) == 4 and all(c["w"] == c["h"] == 1 for c in whole)
    page.get_by_role("button", name="Undo").click()
    assert any(c["w"] < 1 for c in comes(crops, lambda found: any(c["w"] < 1 for c in found)))
    axe_clean(page)


def test_captions_are_written_in_a_list_and_shown_as_text(page: Page, maker: Maker):
    site, placement, _ = gallery(maker)
    maker.open(site, placement, "width=1280", "words")
    axe_clean(page)
    page.get_by_label("Title of item 2").fill("<b>A tern</b> & more")
    page.get_by_label("Link of item 2").fill("javascript:alert(1)")
    expect(page.get_by_text(re.compile("A link cannot lead to “javascript:”"))).to_be_visible()
    page.get_by_label("Link of item 2").fill("/terns")
    saved(page)
    item = maker.kept(placement)["placement"]["parts"][1]["item"]
    assert (item["title"], item["href"]) == ("<b>A tern</b> & more", "/terns")
    frame = page.frame_locator("iframe").first
    expect(frame.locator("figcaption b")).to_have_text("<b>A tern</b> & more")


def test_columns_that_do_not_fit_are_told_at_their_field(page: Page, maker: Maker):
    site, placement, _ = gallery(maker)
    maker.open(site, placement, "width=400&span=A", "frame")
    page.get_by_label("Columns", exact=True).fill("20")
    expect(page.get_by_text(re.compile("20 columns do not fit at 320 px, span A"))).to_be_visible()
    page.get_by_label("Columns", exact=True).fill("2")
    expect(page.get_by_role("button", name="A 320–599").first).to_contain_text("2 across")
    saved(page)
    assert maker.kept(placement)["placement"]["layout"]["A"]["columns"] == 2


def test_a_picture_in_a_pane_is_chosen_by_a_press(page: Page, maker: Maker):
    site, placement, _ = gallery(maker)
    maker.open(site, placement, "width=1280")
    pane = page.get_by_role("button", name="Pane 1280 ×")
    frame = pane.locator("iframe").content_frame
    third = frame.locator("picture").nth(2)
    third.wait_for()
    box = pane.bounding_box()
    assert box
    inner = third.evaluate(
        "(e) => { const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + 20]; }"
    )
    scale = box["width"] / 1280
    page.mouse.click(box["x"] + inner[0] * scale, box["y"] + inner[1] * scale)
    expect(page.get_by_role("tab").nth(2)).to_have_attribute("aria-selected", "true")
    expect(third).to_have_attribute("data-chosen", "")
