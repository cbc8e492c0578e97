"""Aim in a browser: crops, areas per span, colour and nothing, own values, history, offline,
remedies, safe areas."""

from __future__ import annotations

import re
from collections.abc import Iterator

import pytest
from making import Maker, comes, picture, saved
from playwright.sync_api import Page, Route, expect

#: Two areas at the outer thirds: no frame narrower than 1.6:1 holds both.
APART = {"Shed": (0.1, 0.4, 0.15, 0.2), "Dinghy": (0.8, 0.6, 0.1, 0.2)}


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def quay(maker: Maker, **a: object) -> tuple[int, int]:
    """A site with one placement: 2400×1500 px with two areas, 2:1 from 600 px on, in A as told."""
    site = maker.site("Reed Quay")
    original = maker.original(
        site, "quay.jpg", picture(2400, 1500, spots=tuple(APART.values())), APART
    )
    wide = {"original": original, "height": {"kind": "ratio", "w": 2, "h": 1}}
    return site, maker.placement(site, "Quay", {"D": wide, "A": a})


def test_a_crop_stops_where_it_turns_soft_and_says_so(page: Page, maker: Maker):
    site, placement = quay(maker)
    maker.open(site, placement, "width=450&span=A")
    page.get_by_role("button", name="None…").click()
    page.get_by_role("button", name="Draw it on the picture").click()
    crop = page.get_by_role("group", name="Crop.")
    crop.focus()
    for _ in range(20):
        page.keyboard.press("Alt+Shift+ArrowLeft")
    # 599 px wide at 2x, 1198 image px, and what evening out may take
    expect(page.get_by_text("stops here: a smaller crop is soft at 2x")).to_be_visible()
    expect(
        page.get_by_text(re.compile(r"1200 × 600, needs (1198|1199|1200) at 2x$"))
    ).to_be_visible()
    saved(page)
    rect = maker.own(placement)["A"]["crop"]
    assert 1200 <= rect["w"] * 2400 + 0.5 < 1202
    # the ratio that is held is the frame's, 2:1
    assert rect["w"] * 2400 == pytest.approx(2 * rect["h"] * 1500, abs=0.2)

    # it is moved by mouse, and stays inside the picture
    box = page.locator("img[alt='quay.jpg, made up']").first.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 40, box["y"] + 40)
    page.mouse.down()
    page.mouse.move(box["x"] + 700, box["y"] + 60, steps=5)
    page.mouse.up()
    saved(page)
    moved = maker.own(placement)["A"]["crop"]
    assert moved["x"] == pytest.approx(1 - moved["w"], abs=1e-4) and moved["w"] == rect["w"]

    # what is typed stops there too
    page.get_by_role("button", name="Crop…").click()
    width = page.get_by_label("Crop width", exact=True)
    width.fill("600")
    width.press("Enter")
    expect(page.get_by_text("Smaller it is soft at 2x: allow that first.")).to_be_visible()
    expect(width).to_have_value("1200")
    # allowed to be soft it goes on, and says by how much
    page.get_by_role("checkbox", name="may be soft").check()
    width.fill("600")
    width.press("Enter")
    expect(
        page.get_by_text(re.compile(r"600 × 300, needs 119\d at 2x: soft, 0.50×"))
    ).to_be_visible()
    page.get_by_role("button", name="No crop here").click()
    saved(page)
    assert maker.own(placement)["A"]["crop"] == {
        "x": 0,
        "y": 0,
        "w": 1,
        "h": 1,
    }


def test_a_crop_is_drawn_where_the_drag_goes_in_the_ratio_of_the_frame(page: Page, maker: Maker):
    site, placement = quay(maker, height={"kind": "ratio", "w": 3, "h": 2})
    maker.open(site, placement, "width=450&span=A")
    page.get_by_role("button", name="None…").click()
    expect(page.get_by_text("the frame's, 1.5 : 1")).to_be_visible()
    page.get_by_role("button", name="Draw it on the picture").click()
    box = page.locator("img[alt='quay.jpg, made up']").first.bounding_box()
    assert box is not None

    def drag(ax: float, ay: float, bx: float, by: float) -> dict[str, float]:
        page.mouse.move(box["x"] + ax * box["width"], box["y"] + ay * box["height"])
        page.mouse.down()
        page.mouse.move(box["x"] + bx * box["width"], box["y"] + by * box["height"], steps=6)
        page.mouse.up()
        saved(page)
        return maker.own(placement)["A"]["crop"]

    # the whole picture is not moved about: a drag on it draws, and the larger move decides
    drawn = drag(0.1, 0.1, 0.8, 0.2)
    assert (drawn["x"], drawn["y"]) == (pytest.approx(0.1, abs=0.01), pytest.approx(0.1, abs=0.01))
    assert drawn["w"] == pytest.approx(0.7, abs=0.01)
    assert drawn["w"] * 2400 == pytest.approx(1.5 * drawn["h"] * 1500, abs=0.5)
    # beside the crop another one is drawn, from right to left; in it, it is moved
    other = drag(0.95, 0.95, 0.35, 0.85)
    assert other["x"] + other["w"] == pytest.approx(0.95, abs=0.01)
    assert other["w"] == pytest.approx(0.6, abs=0.01)
    moved = drag(0.6, 0.8, 0.5, 0.8)
    assert moved["x"] == pytest.approx(other["x"] - 0.1, abs=0.01) and moved["w"] == other["w"]
    # as free as it is drawn
    page.get_by_role("button", name="Crop…").click()
    page.get_by_role("radiogroup", name="Ratio of the crop").get_by_text("free").click()
    page.keyboard.press("Escape")
    free = drag(0.05, 0.02, 0.95, 0.65)
    assert free["w"] == pytest.approx(0.9, abs=0.01) and free["h"] == pytest.approx(0.63, abs=0.01)
    # and no flatter than the frame can do with: 399 px high at 2x
    flat = drag(0.99, 0.99, 0.2, 0.8)
    assert flat["w"] == pytest.approx(0.79, abs=0.01) and 798 <= flat["h"] * 1500 + 0.5 < 804


def test_the_largest_crop_of_a_ratio_holds_the_areas_or_says_why_not(page: Page, maker: Maker):
    site, placement = quay(maker)
    maker.open(site, placement, "width=450&span=A")
    page.get_by_role("button", name="None…").click()
    expect(page.get_by_role("button", name="1:1", exact=True)).to_be_disabled()
    expect(
        page.get_by_text("A crop of 1:1 has 62 % of the width; Shed and Dinghy need 80 %.")
    ).to_be_visible()
    page.get_by_role("button", name="16:9", exact=True).click()
    saved(page)
    rect = maker.own(placement)["A"]["crop"]
    # 2400×1350 of 2400×1500; the areas end at 0.8 of the height, the focal point is in the middle
    assert rect == pytest.approx({"x": 0, "y": 0.05, "w": 1, "h": 0.9}, abs=1e-3)


def test_a_narrow_span_lets_an_area_go_and_the_wider_ones_are_identical(page: Page, maker: Maker):
    site, placement = quay(maker, height={"kind": "ratio", "w": 1, "h": 1})
    maker.open(site, placement, "width=450&span=A")
    dinghy = page.get_by_role("img", name="Dinghy:")
    expect(dinghy).to_have_attribute("aria-label", "Dinghy: lost 320–599, whole 600–2560")
    page.get_by_role("button", name="All 2…").click()
    # the order is dragged by keys: the last comes first
    grip = page.get_by_role("button", name="Move Dinghy")
    grip.focus()
    for key in ("Space", "ArrowUp", "Space"):
        page.keyboard.press(key)
        page.wait_for_timeout(250)
    expect(dinghy).to_have_attribute("aria-label", "Dinghy: whole 320–2560")
    expect(page.get_by_role("img", name="Shed:")).to_have_attribute(
        "aria-label", "Shed: lost 320–599, whole 600–2560"
    )
    expect(page.get_by_text("last change: A; B, C, D identical")).to_be_visible()
    page.get_by_role("checkbox", name="Shed").uncheck()
    expect(page.get_by_role("img", name="Shed:")).to_have_attribute(
        "aria-label", "Shed: whole 600–2560"
    )
    page.keyboard.press("Escape")
    expect(page.get_by_text("lets go Shed")).to_be_visible()
    expect(page.get_by_role("region", name="Advice for span A")).to_be_hidden()
    saved(page)
    assert maker.own(placement)["A"]["keeps"] == ["Dinghy"]
    assert "keeps" not in {k for k, v in maker.own(placement)["D"].items() if v is not None}


def test_a_span_shows_a_colour_or_nothing(page: Page, maker: Maker):
    site, placement = quay(maker)
    maker.open(site, placement, "width=450&span=A")
    spot = page.frame_locator("iframe[title='First screen at 360 px']")
    beside = page.frame_locator("iframe[title='First screen at 768 px']")

    def shown(pane) -> dict[str, object]:
        return pane.locator("picture").first.evaluate(
            "e => { const i = e.querySelector('img'), s = getComputedStyle(e);"
            " return { height: e.getBoundingClientRect().height, colour: s.backgroundColor,"
            " file: i.currentSrc.slice(0, 5) }; }"
        )

    page.get_by_role("radiogroup", name="What shows").get_by_text("colour").click()
    expect(page.get_by_text("Span A shows only the colour of its frame.")).to_be_visible()
    page.get_by_label("Background colour").fill("#336699")
    coloured = {"height": 180, "colour": "rgb(51, 102, 153)", "file": "data:"}
    assert comes(lambda: shown(spot), lambda s: s == coloured) == coloured
    assert shown(beside)["file"] == "http:"
    page.get_by_role("radiogroup", name="What shows").get_by_text("nothing").click()
    expect(page.get_by_text("Span A shows nothing here.")).to_be_visible()
    assert comes(lambda: shown(spot)["height"], lambda h: h == 0) == 0
    assert shown(beside)["height"] == 384
    page.get_by_role("button", name="Show a picture").click()
    assert comes(lambda: shown(spot)["file"], lambda f: f == "http:") == "http:"
    assert shown(spot)["height"] == 180


def test_own_values_are_copied_to_other_spans_and_reset(page: Page, maker: Maker):
    site, placement = quay(maker, fit="contain", background="#203040")
    maker.open(site, placement, "width=450&span=A")
    page.get_by_role("button", name="2 of its own").click()
    page.get_by_role("checkbox", name="Span B").check()
    page.get_by_role("checkbox", name="Span C").check()
    page.get_by_role("button", name="Copy to 2 spans").click()
    saved(page)
    kept = maker.own(placement)
    for letter in "ABC":
        assert (kept[letter]["fit"], kept[letter]["background"]) == ("contain", "#203040")
    page.get_by_role("button", name="2 of its own").click()
    page.get_by_role("button", name="Reset all").click()
    # B hands its copy down, so that A shows the same
    expect(page.get_by_text("all handed down")).to_be_visible()
    expect(page.get_by_text("last change: nothing shows otherwise")).to_be_visible()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("button", name="2 of its own")).to_be_visible()


def test_history_is_named_and_survives_a_reload(page: Page, maker: Maker):
    site, placement = quay(maker)
    maker.open(site, placement, "width=450&span=A")
    page.get_by_role("radiogroup", name="Fit").get_by_text("contain").click()
    saved(page)
    page.get_by_role("radiogroup", name="Aim").get_by_text("fixed", exact=True).click()
    saved(page)
    page.get_by_role("slider", name="Focal point").focus()
    page.keyboard.press("Shift+ArrowRight")
    saved(page)
    page.reload()
    page.get_by_role("region", name="Ground").wait_for()
    page.get_by_role("button", name="History").click()
    steps = page.get_by_role("listitem").get_by_role("button")
    expect(steps).to_have_count(4)
    names = [re.sub(r"\d\d:\d\d.*", "", t) for t in steps.all_inner_texts()]
    assert [
        bool(re.search(word, n, re.I))
        for word, n in zip(["focal", "aim", "fit"], names, strict=False)
    ] == [True] * 3, names
    page.keyboard.press("Escape")
    # undo reaches into the visit before, twice; then back to the present by redo
    page.get_by_role("button", name="Undo").click()
    page.get_by_role("button", name="Undo").click()
    expect(page.get_by_role("radio", name="areas first")).to_be_checked()
    expect(page.get_by_role("radio", name="contain")).to_be_checked()
    saved(page)
    page.reload()
    page.get_by_role("region", name="Ground").wait_for()
    expect(page.get_by_role("radio", name="contain")).to_be_checked()
    expect(page.get_by_role("radio", name="areas first")).to_be_checked()
    page.get_by_role("button", name="Redo").click()
    expect(page.get_by_role("radio", name="fixed")).to_be_checked()
    # a press goes to any step
    saved(page)
    page.get_by_role("button", name="History").click()
    steps.last.click()
    expect(page.get_by_role("radio", name="cover")).to_be_checked()
    saved(page)
    assert "fit" not in {k for k, v in maker.own(placement)["A"].items() if v is not None}


def test_offline_is_noticed_and_changes_wait(page: Page, maker: Maker):
    site, placement = quay(maker)
    maker.open(site, placement, "width=450&span=A")
    page.context.set_offline(True)
    page.get_by_role("radiogroup", name="Fit").get_by_text("contain").click()
    expect(page.get_by_text("Offline, changes wait")).to_be_visible()
    expect(page.get_by_role("radio", name="contain")).to_be_checked()
    assert maker.kept(placement)["revision"] == 1
    page.context.set_offline(False)
    expect(page.get_by_text("Saved", exact=True)).to_be_visible(timeout=10_000)
    assert maker.own(placement)["A"]["fit"] == "contain"


def test_an_address_with_a_span_no_longer_there_opens_the_one_at_its_width(
    page: Page, maker: Maker
):
    site, placement = quay(maker, height={"kind": "ratio", "w": 1, "h": 1})
    maker.open(site, placement, "width=450&span=G")
    expect(page.get_by_role("region", name="Advice for span A")).to_be_visible()


def test_a_suggestion_that_cannot_be_had_says_why(page: Page, maker: Maker):
    site, placement = quay(maker)
    maker.open(site, placement, "width=450&span=A")
    page.get_by_role("button", name="2 keep areas").click()
    page.route("**/suggestion", lambda route: route.fulfill(status=500, body="no"))
    page.get_by_role("button", name="Suggest…").click()
    expect(
        page.get_by_role("alert").filter(has_text="The server failed. Try again.")
    ).to_be_visible()
    page.unroute("**/suggestion")
    page.get_by_role("button", name="Suggest…").click()
    expect(page.get_by_text(re.compile("^Stands out|^Nothing stands out"))).to_be_visible()
    expect(page.get_by_role("alert").filter(has_text="The server failed")).to_be_hidden()


def test_what_percentages_can_do_and_a_post_where_they_end(page: Page, maker: Maker):
    """The two areas need 0.8 of a picture that is drawn 896 px wide: nothing serves below 717
    px."""
    site = maker.site("Reed Quay", breakpoints=[1599])
    original = maker.original(site, "quay.jpg", picture(2400, 1500), APART)
    wide = {"original": original, "height": {"kind": "ratio", "w": 2, "h": 1}}
    placement = maker.placement(
        site, "Quay", {"B": wide, "A": {"height": {"kind": "fixed", "height_px": 560}}}
    )
    maker.open(site, placement, "width=450&span=A")
    page.get_by_role("button", name="compare…").click()
    expect(page.get_by_text("all whole at 883 of 1280 widths").first).to_be_visible()
    expect(
        page.get_by_text(
            "keep every area whole from 717 to 1599. At the other widths no percentage does"
        )
    ).to_be_visible()
    # the desk goes on with its spans carried over
    page.get_by_role("button", name="Add the post").click()
    page.get_by_role("button", name="C from 1600").first.wait_for()
    maker.comes_to(site, [716, 1599])
    maker.open(site, placement, "width=800&span=B")
    page.get_by_role("button", name="compare…").click()
    expect(page.get_by_text("keep every area whole from 717 to 1599.")).to_be_visible()
    page.get_by_role("button", name="Use them").click()
    page.keyboard.press("Escape")
    saved(page)
    assert maker.own(placement)["B"]["aim"]["kind"] == "fixed"
    expect(page.get_by_role("img", name="Dinghy:")).to_have_attribute(
        "aria-label", re.compile("whole 717–2560$")
    )
    expect(page.get_by_role("img", name="Shed:")).to_have_attribute(
        "aria-label", re.compile("whole 717–2560$|whole 320–2560$")
    )


def test_safe_areas_are_taken_along_as_overlays(page: Page, maker: Maker):
    site, placement = quay(maker)
    maker.open(site, placement, "width=450&span=A")
    page.get_by_role("button", name=re.compile("^safe ")).click()
    for kind, start in (("SVG", b"<svg"), ("PNG", b"\x89PNG")):
        with page.expect_download() as download:
            page.get_by_role("link", name=kind).first.click()
        with open(download.value.path(), "rb") as f:
            assert start in f.read(200)
    expect(page.get_by_text(re.compile(r"^x \d+ to \d+, y \d+ to \d+ px$")).first).to_be_visible()


def test_all_that_fails_in_a_site_is_mended_and_undone_at_once(page: Page, maker: Maker):
    site, placement = quay(maker, height={"kind": "ratio", "w": 1, "h": 1})
    original = maker.own(placement)["D"]["original"]
    other = maker.placement(
        site,
        "Quay again",
        {"D": {"original": original, "height": {"kind": "ratio", "w": 4, "h": 5}}},
        on="Crossings",
    )
    before = [maker.kept(p)["placement"] for p in (placement, other)]
    page.goto(f"{maker.address}/sites/{site}/placements")
    page.get_by_role("link", name=re.compile("emed")).click()
    page.get_by_role("heading", name="Remedies").wait_for()
    expect(page.get_by_role("region", name="Home")).to_contain_text("Dinghy is")
    ticks = page.get_by_role("checkbox", name=re.compile("^Apply to"))
    expect(ticks).to_have_count(5)  # A of the first, A to D of the second
    ticks.first.uncheck()
    expect(page.get_by_role("button", name="Apply 4 of 5")).to_be_visible()
    ticks.first.check()
    page.get_by_role("button", name="Apply all 5").click()
    expect(
        page.get_by_text("Every keep area is whole at every width of every placement.")
    ).to_be_visible()
    assert [maker.kept(p)["placement"] for p in (placement, other)] != before
    page.get_by_role("button", name="Undo 2 placements").click()
    expect(ticks).to_have_count(5)
    after = [maker.kept(p)["placement"] for p in (placement, other)]
    assert after == before


def test_a_picture_on_its_way_moves_nothing(page: Page, maker: Maker):
    """It is told in a corner; one that is refused says why, until it is dismissed."""
    site, placement = quay(maker)
    maker.open(site, placement, "width=450&span=A")
    fit = page.get_by_role("radiogroup", name="Fit")
    before = fit.bounding_box()
    held: list[Route] = []
    page.route(
        "**/api/sites/*/originals",
        lambda r: held.append(r) if r.request.method == "POST" else r.continue_(),
    )
    page.get_by_label("Bring an original for span A").set_input_files(
        {"name": "notes.jpg", "mimeType": "image/jpeg", "buffer": b"only words\n"}
    )
    uploads = page.get_by_role("complementary", name="Uploads")
    expect(uploads).to_contain_text("Bringing 1 picture")
    assert fit.bounding_box() == before
    page.wait_for_timeout(500)
    held[0].continue_()
    expect(uploads).to_contain_text("notes.jpg is text, not a picture")
    assert fit.bounding_box() == before
    uploads.get_by_role("button", name="Dismiss what is said of notes.jpg").click()
    expect(uploads).to_have_count(0)
