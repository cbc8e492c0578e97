"""The originals page in a browser: many files at once, several selected, one opened to its map."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from making import Maker, badge, picture, saved
from playwright.sync_api import Locator, Page, expect


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def originals(maker: Maker, site: int) -> dict[str, dict]:
    return {o["name"]: o for o in maker.ask("GET", f"/sites/{site}/originals")}


def sheet(page: Page, maker: Maker, site: int, name: str) -> Locator:
    page.goto(f"{maker.address}/sites/{site}/originals")
    page.get_by_role("button", name=name).click()
    return page.get_by_role("dialog", name=name)


def test_each_of_many_files_has_its_own_outcome(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    page.goto(f"{maker.address}/sites/{site}/originals")
    expect(page.get_by_text("No picture yet.")).to_be_visible()
    page.locator('input[type="file"]').set_input_files(
        [
            {"name": "pier.jpg", "mimeType": "image/jpeg", "buffer": picture(1200, 800)},
            {"name": "notes.jpg", "mimeType": "image/jpeg", "buffer": b"only words\n"},
            {"name": "lamp.png", "mimeType": "image/png", "buffer": picture(900, 1300, kind="PNG")},
            {"name": "badge.png", "mimeType": "image/png", "buffer": badge()},
        ]
    )
    for name in ("pier.jpg", "lamp.png", "badge.png"):
        expect(page.get_by_role("button", name=name)).to_be_visible()
    expect(page.get_by_text(re.compile("notes.jpg is text, not a picture"))).to_be_visible()
    assert set(originals(maker, site)) == {"pier.jpg", "lamp.png", "badge.png"}


def test_several_get_words_and_tags_and_the_unused_go(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    names = ["a.jpg", "b.jpg", "c.jpg", "d.jpg"]
    ids = {n: maker.original(site, n, picture(1000 + 40 * i, 700)) for i, n in enumerate(names)}
    maker.placement(site, "Quay", {"D": {"original": ids["b.jpg"]}})
    page.goto(f"{maker.address}/sites/{site}/originals")
    page.get_by_role("combobox", name="Order").click()
    page.get_by_role("option", name="by name").click()
    page.get_by_role("checkbox", name="Select a.jpg").click(force=True)
    page.get_by_role("checkbox", name="Select c.jpg").click(modifiers=["Shift"])
    bar = page.get_by_role("region", name="Selected originals")
    expect(bar).to_contain_text("3 originals selected")

    bar.get_by_role("button", name="Alt text…").click()
    page.get_by_role("checkbox", name="Decorative on purpose").check()
    page.get_by_role("button", name="Keep", exact=True).click()
    expect(page.get_by_role("button", name="Kept")).to_be_visible()
    page.keyboard.press("Escape")
    bar.get_by_role("button", name="Tags…").click()
    page.get_by_role("combobox", name="Add tags").fill("harbour")
    page.keyboard.press("Enter")
    page.get_by_role("button", name="Add", exact=True).click()
    expect(page.get_by_role("button", name="Take tag harbour off")).to_be_visible()
    page.keyboard.press("Escape")
    now = originals(maker, site)
    assert [(now[n]["alt"] == "", now[n]["tags"]) for n in names] == [(True, ["harbour"])] * 3 + [
        (False, [])
    ]

    # tags are found; one in use stays, and where it is used is told before and after
    page.keyboard.press("/")
    expect(page.get_by_role("textbox", name="Find by name or tag")).to_be_focused()
    page.keyboard.type("harb")
    expect(page.get_by_role("checkbox", name=re.compile("^Select"))).to_have_count(3)
    bar.get_by_role("button", name="Remove…").click()
    expect(page.get_by_text(re.compile(r"b\.jpg \(Home · Quay, D\)"))).to_be_visible()
    page.get_by_role("button", name="Remove 2 originals").click()
    expect(page.get_by_text("b.jpg is used in Home · Quay, D")).to_be_visible()
    assert set(originals(maker, site)) == {"b.jpg", "d.jpg"}


def test_an_original_is_opened_to_its_map(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    maker.original(site, "quay.jpg", picture(2400, 1500, spots=((0.7, 0.55, 0.1, 0.15),)))
    opened = sheet(page, maker, site, "quay.jpg")
    # offered, not taken unasked
    opened.get_by_role("button", name="Suggest…").click()
    expect(opened.get_by_text(re.compile("Stands out"))).to_be_visible()
    assert originals(maker, site)["quay.jpg"]["focal"] == [0.5, 0.5]
    opened.get_by_role("button", name="Take the focal point").click()
    opened.get_by_role("button", name=re.compile("^Take the areas?$")).click()
    opened.get_by_role("button", name="dismiss").click()
    saved(page)
    now = originals(maker, site)["quay.jpg"]
    assert now["focal"] == pytest.approx([0.75, 0.625], abs=0.05)
    assert now["areas"] and all(a["kind"] == "keep" for a in now["areas"])
    rect = now["areas"][0]["rect"]
    assert (
        rect["x"] <= 0.75 <= rect["x"] + rect["w"] and rect["y"] <= 0.625 <= rect["y"] + rect["h"]
    )

    # zoomed in, the same areas; moved by keys, copied, removed, undone
    opened.get_by_text("4×").click()
    area = opened.get_by_role("group", name=re.compile("^Keep area Keep area"))
    expect(area).to_have_count(len(now["areas"]))
    area.first.focus()
    page.keyboard.press("d")
    expect(area).to_have_count(len(now["areas"]) + 1)
    area.first.focus()
    page.keyboard.press("Delete")
    expect(area).to_have_count(len(now["areas"]))
    opened.get_by_role("button", name="Undo").click()
    expect(area).to_have_count(len(now["areas"]) + 1)
    opened.get_by_role("button", name="Redo").click()
    expect(area).to_have_count(len(now["areas"]))
    opened.get_by_role("checkbox", name=re.compile("is lettering$")).first.check()
    saved(page)
    assert originals(maker, site)["quay.jpg"]["areas"][0]["lettering"]


def test_a_better_file_takes_its_place_and_another_picture_is_asked_about(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    original = maker.original(site, "quay.jpg", picture(1200, 800), {"Shed": (0.1, 0.4, 0.15, 0.2)})
    maker.placement(site, "Quay", {"D": {"original": original}})
    opened = sheet(page, maker, site, "quay.jpg")
    chooser = opened.get_by_label("A better file for quay.jpg")
    chooser.set_input_files(
        {"name": "larger.jpg", "mimeType": "image/jpeg", "buffer": picture(2400, 1600)}
    )
    opened = page.get_by_role("dialog")
    expect(opened.get_by_text("2400 × 1600").first).to_be_visible()
    expect(opened.get_by_role("alert")).to_have_text(
        "Replaced. Areas and treatments fit as before."
    )
    now = originals(maker, site)
    (kept,) = now.values()
    assert (kept["id"], kept["width_px"], [a["name"] for a in kept["areas"]]) == (
        original,
        2400,
        ["Shed"],
    )

    opened.get_by_label(re.compile("^A better file")).set_input_files(
        {"name": "tall.jpg", "mimeType": "image/jpeg", "buffer": picture(800, 1200)}
    )
    expect(opened.get_by_role("alert")).to_contain_text("ratio")
    assert next(iter(originals(maker, site).values()))["width_px"] == 2400
    opened.get_by_role("button", name="Replace all the same").click()
    expect(opened.get_by_text("800 × 1200").first).to_be_visible()
    opened.get_by_role("button", name="Remove", exact=True).click()
    expect(opened.get_by_role("alert").filter(has_text="Home · Quay")).to_be_visible()


def test_transparent_edges_are_trimmed_and_come_back(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    maker.original(site, "badge.png", badge())
    opened = sheet(page, maker, site, "badge.png")
    opened.get_by_role("button", name="Trim transparent edges").click()
    expect(page.get_by_role("dialog").get_by_text(re.compile("^300 × 200,"))).to_be_visible()
    page.get_by_role("dialog").get_by_role("button", name="Back to the untouched file").click()
    expect(page.get_by_role("dialog").get_by_text(re.compile("^600 × 500,"))).to_be_visible()
