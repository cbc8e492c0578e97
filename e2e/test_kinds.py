"""Slideshows, pictures beside text and logos in a browser: made, told what is wrong, helped."""

from __future__ import annotations

from collections.abc import Iterator
from typing import Any

import pytest
from accessible import axe_clean
from making import Maker, comes, picture, saved
from playwright.sync_api import Page, expect

BOAT = {"Boat": (0.4, 0.72, 0.2, 0.26)}


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def several(maker: Maker, kind: str, **noun: Any) -> tuple[int, int]:
    """A site with a placement of three pictures, the third of another ratio."""
    site = maker.site("Shingle Bay")
    originals = [
        maker.original(
            site, f"{i} Küste.jpg", picture(*size, spots=((0.2, 0.2, 0.1 * i, 0.5),)), keep
        )
        for i, (size, keep) in enumerate(
            [((1600, 900), None), ((1600, 900), None), ((1200, 900), BOAT)], 1
        )
    ]
    page = maker.ask("POST", f"/sites/{site}/pages", data={"title": "Tour"})["id"]
    body = {
        "name": "Three",
        "kind": kind,
        "parts": [{"treatments": {"D": {"original": o}}} for o in originals],
        "common": {"D": {"height": {"kind": "ratio", "w": 16, "h": 9}}},
        **noun,
    }
    made = maker.ask("POST", f"/pages/{page}/placements", data={"placement": body})
    return site, made["id"]


def at(maker: Maker, site: int, placement: int, step: str) -> None:
    maker.page.goto(f"{maker.address}/sites/{site}/placements/{placement}/{step}?width=1280&span=C")
    maker.page.get_by_role("region", name="Sky: what visitors see").wait_for()


def test_a_picture_becomes_a_slideshow_and_all_its_values_are_set(page: Page, maker: Maker):
    site, placement = several(maker, "grid")
    at(maker, site, placement, "frame")
    page.get_by_label("Kind of placement").get_by_text("slides", exact=True).click()
    page.get_by_role("switch", name="by itself").press("Space")
    page.get_by_label("Time from one change to the next").fill("4")
    page.keyboard.press("Enter")
    expect(page.get_by_text("A loop takes 12 s: 3 × 4 s.")).to_be_visible()
    page.get_by_label("Controls", exact=True).get_by_text("numbers").click()
    page.get_by_label("Where controls are").get_by_text("under it").click()
    saved(page)
    kept = maker.kept(placement)["placement"]
    assert kept["kind"] == "slides"
    assert kept["layout"]["C"] == {
        "by_itself": True,
        "every_s": 4,
        "controls": "numbers",
        "controls_lie": "under",
    }
    axe_clean(page)


def test_a_pause_of_nothing_is_refused_beside_its_field(page: Page, maker: Maker):
    site, placement = several(maker, "slides", layout={"D": {"by_itself": True}})
    at(maker, site, placement, "frame")
    page.get_by_label("Time from one change to the next").fill("0")
    page.keyboard.press("Enter")
    alert = page.get_by_role("alert").filter(has_text="flickers")
    expect(alert).to_contain_text("three flashes in a second can harm (WCAG 2.2, 2.3.1)")
    # nothing is lost: the value waits to be put right
    page.get_by_label("Time from one change to the next").fill("3")
    page.keyboard.press("Enter")
    expect(alert).to_have_count(0)
    saved(page)
    assert maker.kept(placement)["placement"]["layout"]["C"]["every_s"] == 3


def test_panes_show_the_slide_that_is_worked_on_and_run_the_delivered_script(
    page: Page, maker: Maker
):
    site, placement = several(maker, "slides", layout={"D": {"change": "fade"}})
    at(maker, site, placement, "aim")
    pane = page.frame_locator("iframe").first
    expect(pane.locator("[data-slideshow][data-on]")).to_have_count(1)
    page.get_by_role("tab").nth(1).click()
    expect(pane.locator("[data-slides] > [data-now] picture[data-chosen]")).to_have_count(1)
    expect(pane.locator("[data-slides] > :nth-child(2)[data-now]")).to_have_count(1)


def test_who_is_out_of_line_is_cropped_with_the_rest(page: Page, maker: Maker):
    site, placement = several(maker, "slides")
    at(maker, site, placement, "aim")
    card = page.get_by_role("region", name="One ratio for all")
    expect(card).to_contain_text("1 slide of 3 is out of line")
    expect(card).to_contain_text("3 Küste.jpg")
    card.get_by_role("button", name="Crop all to").click()
    expect(card).to_have_count(0)
    saved(page)
    parts = maker.kept(placement)["placement"]["parts"]
    crop = parts[2]["treatments"]["C"]["crop"]
    assert crop["w"] * 1200 / (crop["h"] * 900) == pytest.approx(16 / 9, rel=1e-3)
    assert crop["y"] + crop["h"] >= 0.98 - 1e-6


def test_the_code_has_the_script_and_an_export_too(page: Page, maker: Maker):
    site, placement = several(maker, "slides")
    at(maker, site, placement, "code")
    expect(page.get_by_text("slides.js", exact=True)).to_be_visible()
    expect(page.get_by_text('<script src="slides.js" defer></script>')).to_be_visible()


def test_pictures_stand_beside_their_text(page: Page, maker: Maker):
    site, placement = several(maker, "beside", layout={"D": {}})
    at(maker, site, placement, "frame")
    shares = page.get_by_label("Usual shares of the row")
    shares.get_by_text("25 %").click()
    page.get_by_label("Side of the picture").get_by_text("right").click()
    expect(page.get_by_text("The text has 744 px at 1024 px, its least here.")).to_be_visible()
    shares.get_by_text("100 %").click()
    page.get_by_label("Where the picture is stacked").get_by_text("text above").click()
    page.get_by_label("The picture's share of the row").fill("130")
    page.keyboard.press("Enter")
    expect(page.get_by_role("alert").first).to_contain_text("leaves 100 − 130 = -30 % for the text")
    page.get_by_label("The picture's share of the row").fill("40")
    page.keyboard.press("Enter")
    saved(page)
    kept = maker.kept(placement)["placement"]["layout"]["C"]
    assert kept == {"share_percent": 40, "side": "end", "stacked": "below"}
    # one more with all its rules
    at(maker, site, placement, "aim")
    page.get_by_role("button", name="copy", exact=True).click()
    expect(page.get_by_role("tab")).to_have_count(4)
    saved(page)
    parts = maker.kept(placement)["placement"]["parts"]
    assert parts[0] == parts[1]
    axe_clean(page)


def test_a_logo_shows_the_fullest_cut_that_can_be_read(page: Page, maker: Maker):
    site = maker.site("Shingle Bay")
    for name, (w, h) in {
        "full.svg": (600, 150),
        "short.svg": (300, 150),
        "sign.svg": (99, 99),
    }.items():
        svg = (
            f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {w} {h}" width="{w}"'
            f' height="{h}"><rect x="3" y="3" width="{w / 2}" height="{h / 2}"/></svg>'
        )
        maker.original(site, name, svg.encode())
    maker.ask("POST", f"/sites/{site}/pages", data={"title": "Tour"})
    page.goto(f"{maker.address}/sites/{site}/placements")
    page.get_by_role("button", name="+ placement").first.click()
    page.get_by_label("Name, which files will bear too").fill("Mark")
    page.get_by_label("a logo").check()
    page.get_by_role("button", name="Make it").click()
    page.wait_for_url("**/placements/*/*")
    placement = int(page.url.split("/placements/")[1].split("/")[0])
    page.goto(f"{maker.address}/sites/{site}/placements/{placement}/frame?width=1700&span=D")
    page.get_by_role("button", name="Add…").click()
    for name in ("full.svg", "short.svg", "sign.svg"):
        page.get_by_role("button", name=name).click()
    page.get_by_role("button", name="Add 3 cuts").click()
    cuts = page.get_by_role("region", name="Cuts of the logo")
    expect(cuts.get_by_role("row")).to_have_count(4)
    for name, share in (("full.svg", "20"), ("short.svg", "30")):
        field = cuts.get_by_label(f"Height of the lettering of {name}, empty for none")
        field.fill(share)
        page.keyboard.press("Enter")
    # 11·(600/150)/0.2 and 11·(300/150)/0.3
    expect(cuts.get_by_role("row").nth(1)).to_contain_text("220 px")
    expect(cuts.get_by_role("row").nth(2)).to_contain_text("74 px")
    # they are dragged, by keys too, and a screen reader is told of each by its name
    grip = cuts.get_by_role("button", name="Move full.svg")
    grip.focus()
    page.keyboard.press("Space")
    expect(page.get_by_text("full.svg: 1 of 3.")).to_be_attached()
    page.keyboard.press("ArrowDown")
    expect(page.get_by_text("full.svg: 2 of 3.")).to_be_attached()
    page.keyboard.press("Space")
    expect(page.get_by_text("full.svg is now 2 of 3.")).to_be_attached()
    expect(cuts.get_by_role("row").nth(2)).to_contain_text("full.svg")
    expect(grip).to_be_focused()
    page.get_by_role("button", name="Undo").click()
    expect(cuts.get_by_role("row").nth(1)).to_contain_text("full.svg")
    page.get_by_label("Width rule").get_by_text("share").click()
    page.get_by_label("Share", exact=True).fill("15")
    page.keyboard.press("Enter")
    breaks = cuts.get_by_role("button", name="Breakpoint")
    expect(breaks).to_contain_text("1466")
    breaks.click()
    expect(breaks).to_have_count(0)
    show = cuts.get_by_role("button", name="Show the fullest that can be read")
    show.click()
    expect(show).to_have_count(0)
    saved(page)
    expect(page.get_by_role("img", name="Lettering readable")).to_be_visible()
    kept = comes(
        lambda: maker.kept(placement)["placement"]["parts"][0]["treatments"],
        lambda t: len({v.get("original") for v in t.values()}) >= 3,
    )
    assert kept
    page.reload()
    cuts.wait_for()
    axe_clean(page)


def test_another_cut_shows_where_the_screen_stands_upright(page: Page, maker: Maker):
    """From the chosen span down; taken back it leaves nothing behind. What was exported shows the
    cut that was predicted in either orientation."""
    site = maker.site("Shingle Bay", formats=["webp", "jpeg"])
    ids = {
        n: maker.original(site, n, picture(w, h, kind="PNG"))
        for n, w, h in (("a.png", 900, 300), ("b.png", 300, 400))
    }
    placement = maker.placement(site, "Mark", {"D": {"original": ids["a.png"]}})
    noun = maker.kept(placement)
    cuts = [{"original": i, "lettering_percent": None} for i in ids.values()]
    box = {"width": {"kind": "fixed", "width_px": 240}, "height": {"kind": "ratio", "w": 1, "h": 1}}
    logo = {
        **noun["placement"],
        "kind": "logo",
        "layout": {"D": {"cuts": cuts}},
        "parts": [{"treatments": {"D": {"original": ids["a.png"], **box}}}],
    }
    body = {"revision": noun["revision"], "placement": logo}
    maker.ask("PUT", f"/placements/{placement}", data=body)
    desk = f"{maker.address}/sites/{site}/placements/{placement}"
    page.goto(f"{desk}/frame?width=700&span=B")
    page.get_by_role("button", name="Another cut when…").click()
    page.get_by_role("menuitem", name="in portrait", exact=True).click()
    choose = page.get_by_label("Cut in portrait", exact=True).first

    def chosen(name: str) -> None:
        choose.click()
        page.get_by_role("option", name=name).click()
        saved(page)

    chosen("b.png")
    parts = maker.kept(placement)["placement"]["parts"]
    assert [(p["of"], p["when"]) for p in parts[1:]] == [(parts[0]["key"], ["portrait"])]
    shows = {k: (t.get("show"), t.get("original")) for k, t in parts[1]["treatments"].items()}
    assert shows == {"B": ("picture", ids["b.png"])}
    chosen("as usual")
    assert len(maker.kept(placement)["placement"]["parts"]) == 1
    chosen("b.png")
    axe_clean(page)
    # in the pane that stands upright, and on the delivered page
    page.goto(f"{desk}/files")
    page.get_by_role("button", name="Export", exact=True).click()
    page.get_by_role("link", name="Download zip").wait_for(timeout=120_000)
    page.goto(f"{desk}/proof?width=700")
    expect(page.get_by_text("as predicted").first).to_be_visible()
    expect(page.get_by_role("cell", name="600 × 375")).to_have_count(2)
    page.get_by_role("button", name="Try all at 1x in this browser").click()
    expect(page.get_by_text("16 of 16 agree")).to_be_visible(timeout=120_000)
    page.goto(f"{desk}/proof?width=700&part=2")
    expect(page.get_by_text("as predicted").first).to_be_visible()


@pytest.mark.parametrize("kind", ["picture", "grid"])
def test_another_picture_is_chosen_and_aimed_for_portrait(page: Page, maker: Maker, kind: str):
    site = maker.site("Shingle Bay", formats=["jpeg"])
    wide, tall = (
        maker.original(site, name, picture(w, h))
        for name, w, h in (("wide.jpg", 900, 600), ("tall.jpg", 600, 900))
    )
    placement = maker.placement(site, "Pier", {"D": {"original": wide}})
    noun = maker.kept(placement)
    item = {"treatments": {"D": {"original": wide}}}
    said = {**noun["placement"], "kind": kind, "parts": [item, item] if kind == "grid" else [item]}
    body = {"revision": noun["revision"], "placement": said}
    maker.ask("PUT", f"/placements/{placement}", data=body)
    page.goto(f"{maker.address}/sites/{site}/placements/{placement}/aim?width=700")
    page.get_by_role("button", name="Another picture when…").click()
    page.get_by_role("menuitem", name="in portrait", exact=True).click()
    shows = page.get_by_label("What shows in portrait", exact=True).first
    expect(shows).to_have_value("as usual")
    expect(page.get_by_role("button", name="upright T")).to_have_attribute("aria-pressed", "true")
    page.get_by_role("button", name="Another…").click()
    page.get_by_role("button", name="tall.jpg").click()
    saved(page)
    page.get_by_role("button", name="aim it").click()
    expect(page.get_by_role("tab", name="in portrait")).to_have_attribute("aria-selected", "true")
    expect(page.get_by_text("In portrait this shows in the place of the picture.")).to_be_visible()
    page.get_by_role("radiogroup", name="Fit").get_by_text("contain").click()
    saved(page)
    axe_clean(page)
    parts = maker.kept(placement)["placement"]["parts"]
    own = parts[-1]["treatments"]["B"]
    assert (parts[-1]["of"], own["original"], own["fit"]) == (parts[0]["key"], tall, "contain")
    page.get_by_role("tab", name="picture").click()
    shows.click()
    page.get_by_role("option", name="as usual").click()
    expect(shows).to_have_value("as usual")
    saved(page)
    own = maker.kept(placement)["placement"]["parts"][-1]["treatments"]["B"]
    assert (own["show"], own.get("original")) == ("usual", None)


def test_a_whole_page_is_laid_out_and_shared(page: Page, maker: Maker):
    site, placement = several(maker, "slides")
    home = maker.kept(placement)["page_id"]
    plain = {"name": "Plain", "parts": [{"treatments": {"D": {"original": None}}}]}
    maker.ask("POST", f"/pages/{home}/placements", data={"placement": plain})
    other = maker.ask("POST", f"/sites/{site}/pages", data={"title": "Visit"})["id"]
    page.goto(f"{maker.address}/sites/{site}/placements")
    page.get_by_role("link", name="Tour", exact=True).click()
    page.get_by_role("heading", name="Tour").wait_for()
    expect(page.get_by_role("button", name="The page at 1280 px")).to_be_visible()
    page.get_by_label("Height of the page's head in span B").fill("80")
    page.keyboard.press("Enter")
    page.get_by_role("switch", name="the first placement slides under it").click(force=True)
    page.get_by_role("switch", name="Plain shows in span B").click(force=True)
    expect(page.get_by_role("switch", name="Plain shows in span B")).not_to_be_checked()
    # by keyboard: take hold, move, let go
    page.get_by_role("button", name="Move Plain").focus()
    for key in ("Space", "ArrowUp", "Space"):
        page.keyboard.press(key)
        page.wait_for_timeout(250)
    told = comes(
        lambda: maker.ask("GET", f"/pages/{home}/reading"),
        lambda p: p["layout"].get("B", {}).get("order") == [1, 0],
    )
    assert told["layout"]["B"] == {"head_px": 80, "head_over": True, "order": [1, 0]}
    axe_clean(page)
    page.goto(f"{maker.address}/sites/{site}/pages/{other}")
    page.get_by_role("combobox", name="Show a placement of another").click()
    page.get_by_role("option", name="Tour · Three").click()
    expect(page.get_by_text("of Tour")).to_be_visible()
    page.goto(f"{maker.address}/sites/{site}/placements")
    visit = page.get_by_role("region", name="Visit")
    expect(visit.get_by_text("of Tour")).to_be_visible()
