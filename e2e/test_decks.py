"""How the desk shares out its height, what can be dropped where, copies, and people who come in."""

from __future__ import annotations

import base64

import pytest
from making import Maker, picture
from playwright.sync_api import Browser, Page, expect

DROP = """([selector, name, content]) => {
  const bytes = Uint8Array.from(atob(content), (c) => c.charCodeAt(0));
  const dropped = new DataTransfer();
  dropped.items.add(new File([bytes], name, { type: "image/jpeg" }));
  const target = document.querySelector(selector);
  for (const kind of ["dragenter", "dragover", "drop"])
    target.dispatchEvent(
      new DragEvent(kind, { dataTransfer: dropped, bubbles: true, cancelable: true }));
}"""


@pytest.fixture
def maker(page: Page, address: str):
    made = Maker(page, address)
    yield made
    made.remove_sites()


def opened(page: Page, maker: Maker, step: str = "aim", **treatments) -> tuple[int, int]:
    """A desk with one placement that shows a picture; its site and placement."""
    site = maker.site("Decks")
    original = maker.original(site, "quay.jpg", picture(1600, 900))
    shown = {"D": {"original": original, **treatments}}
    placement = maker.placement(site, "Quay", shown)
    page.goto(f"{maker.address}/sites/{site}/placements/{placement}/{step}?width=700")
    page.get_by_role("region", name="Ground").wait_for()
    return site, placement


def high(page: Page, deck: str) -> float:
    box = page.get_by_role("region", name=deck).bounding_box()
    assert box is not None
    return box["height"]


def test_the_sky_sinks_where_one_reads_and_rises_where_one_looks(page: Page, maker: Maker):
    opened(page, maker, "files")
    assert high(page, "Ground") >= 430 and high(page, "Sky") < 140
    expect(page.get_by_role("button", name="Pane 700 ×")).to_be_visible()  # it still follows
    page.keyboard.press("2")
    expect(page.get_by_role("radiogroup", name="Aim")).to_be_visible()
    assert high(page, "Sky") > 200
    page.keyboard.press("4")
    expect(page.get_by_role("button", name="Export")).to_be_visible()
    page.keyboard.press("s")
    page.wait_for_function("() => document.querySelector('[data-sky]').dataset.sky === 'tall'")
    assert high(page, "Sky") > 200
    page.reload()  # remembered for this step
    page.get_by_role("region", name="Ground").wait_for()
    assert high(page, "Sky") > 200
    page.get_by_role("button", name="Lower the sky to a strip").click()
    assert high(page, "Ground") >= 430


def test_a_high_window_has_room_for_both(page: Page, maker: Maker):
    page.set_viewport_size({"width": 1680, "height": 1050})
    opened(page, maker, "files")
    page.evaluate("localStorage.clear()")
    page.reload()
    page.get_by_role("region", name="Ground").wait_for()
    assert high(page, "Ground") >= 430 and high(page, "Sky") > 250


def test_the_line_is_dragged_and_moved_by_keys(page: Page, maker: Maker):
    opened(page, maker, "aim")
    before = high(page, "Ground")
    tab = page.get_by_role("button", name="Lower the sky to a strip")
    tab.focus()
    tab.press("ArrowUp")
    assert high(page, "Ground") == pytest.approx(before + 24, abs=2)
    sky = page.get_by_role("region", name="Sky").bounding_box()
    assert sky is not None
    line = sky["y"] + sky["height"] + 1
    page.mouse.move(40, line)
    page.mouse.down()
    page.mouse.move(40, line - 60, steps=4)
    page.mouse.up()
    assert high(page, "Ground") == pytest.approx(before + 84, abs=4)
    page.reload()
    page.get_by_role("region", name="Ground").wait_for()
    assert high(page, "Ground") == pytest.approx(before + 84, abs=4)


def test_without_a_picture_panes_show_the_frame_with_its_size(page: Page, maker: Maker):
    site = maker.site("Empty")
    rule = {"height": {"kind": "ratio", "w": 2, "h": 1}}
    placement = maker.placement(site, "Waiting", {"D": rule})
    page.goto(f"{maker.address}/sites/{site}/placements/{placement}/aim?width=700")
    pane = page.frame_locator("iframe[title='First screen at 700 px']")
    expect(pane.locator(".waits")).to_have_text("700 × 350")


def test_the_pane_that_follows_takes_the_place_of_one_of_its_width(page: Page, maker: Maker):
    opened(page, maker)
    page.get_by_label("Type a viewport width").fill("768")
    page.get_by_label("Type a viewport width").press("Enter")
    expect(page.get_by_role("button", name="Pane 700 ×")).to_have_count(0)
    expect(page.get_by_role("button", name="Pane 768 ×")).to_have_count(1)


@pytest.mark.parametrize(
    ("target", "letter"),
    [("button[aria-label^='Pane 360']", "A"), ("button[aria-pressed]:has-text('1024–1599')", "C")],
)
def test_a_picture_dropped_on_a_pane_or_a_tag_goes_into_that_span(
    page: Page, maker: Maker, target: str, letter: str
):
    _, placement = opened(page, maker)
    handle = page.locator(target).first
    handle.evaluate("e => e.id = 'target'")
    content = base64.b64encode(picture(900, 700, spots=((0.2, 0.2, 0.2, 0.2),))).decode()
    page.evaluate(DROP, ["#target", "dropped.jpg", content])
    expect(page.get_by_text("Saved", exact=True)).to_be_visible(timeout=15_000)
    page.wait_for_function(
        "async ([url, letter]) => ((await (await fetch(url)).json()).placement.parts[0]"
        ".treatments[letter] || {}).original > 0",
        arg=[f"/api/placements/{placement}", letter],
    )


def test_pictures_dropped_on_a_page_become_placements(page: Page, maker: Maker):
    site = maker.site("Dropped")
    page.goto(f"{maker.address}/sites/{site}/placements")
    page.get_by_label("Bring pictures to Home").set_input_files(
        [
            # the first is the last to arrive
            {"name": f"{name}.jpg", "mimeType": "image/jpeg", "buffer": picture(width, 600)}
            for name, width in [("old_harbour", 6000), ("IMG-2041", 900)]
        ]
    )
    for name in ("Old harbour", "IMG 2041"):
        expect(page.get_by_role("link", name=name, exact=True)).to_be_visible(timeout=15_000)
    rows = page.get_by_role("region", name="Home").locator("a[href$='/frame']")
    assert rows.all_inner_texts() == ["Old harbour", "IMG 2041"]


def test_a_placement_is_duplicated_and_only_the_original_exchanged(page: Page, maker: Maker):
    site, placement = opened(page, maker, height={"kind": "ratio", "w": 3, "h": 1})
    maker.original(site, "other.jpg", picture(1500, 1000, spots=((0.5, 0.5, 0.2, 0.2),)))
    page.goto(f"{maker.address}/sites/{site}/placements")
    page.get_by_role("button", name="More for Quay").click()
    page.get_by_role("menuitem", name="Duplicate…").click()
    page.get_by_role("combobox", name="It shows").click()
    page.get_by_role("option", name="other.jpg").click()
    page.get_by_role("button", name="Duplicate").click()
    page.wait_for_url("**/aim**")
    expect(page.get_by_text("1500 × 1000").first).to_be_visible()
    copy = int(page.url.split("/placements/")[1].split("/")[0])
    assert copy != placement
    kept = maker.own(copy)["D"]
    assert kept["height"]["w"] == 3 and kept["original"] != maker.own(placement)["D"]["original"]


def test_somebody_comes_in_by_a_link_and_may_only_look(page: Page, maker: Maker, browser: Browser):
    site, placement = opened(page, maker)
    page.goto(f"{maker.address}/sites/{site}/settings")
    page.get_by_role("combobox", name="What the invited person may do").click()
    page.get_by_role("option", name="may look").click()
    page.get_by_role("button", name="Make a link for one person").click()
    link = page.get_by_role("status").locator("code").inner_text()
    context = browser.new_context(viewport={"width": 1280, "height": 800})
    theirs = context.new_page()
    theirs.goto(link)
    expect(theirs.get_by_text("demo lets you look at the site Decks.")).to_be_visible()
    theirs.get_by_label("Name").fill(f"guest{site}")
    theirs.get_by_role("textbox", name="Password").fill("short")
    theirs.get_by_role("button", name="Come in").click()
    expect(theirs.get_by_text("too short")).to_be_visible()
    theirs.get_by_role("textbox", name="Password").fill("a-long-enough-word")
    theirs.get_by_role("button", name="Come in").click()
    theirs.get_by_role("link", name="Decks").click()
    theirs.get_by_role("link", name="Quay", exact=True).click()
    theirs.get_by_role("navigation", name="Steps").get_by_role("button", name="Aim").click()
    theirs.get_by_role("radiogroup", name="Fit").get_by_text("contain").click()
    # it is seen, and nothing of it is kept
    expect(theirs.get_by_label("contain")).to_be_checked()
    note = theirs.get_by_text("Only to look at")
    note.hover()
    expect(theirs.get_by_text("You may look at this site and try things here")).to_be_visible()
    theirs.goto(f"{maker.address}/sites/{site}/placements")
    expect(theirs.get_by_text("to look at", exact=True)).to_be_visible()
    theirs.get_by_role("button", name="More for Quay").click()
    theirs.get_by_role("menuitem", name="Remove").click()
    expect(theirs.get_by_text("You may look at this site, but not change it.")).to_be_visible()
    theirs.goto(f"{maker.address}/sites/{site}/settings")
    theirs.get_by_role("button", name="Remove this site…").click()
    theirs.get_by_role("button", name="Remove Decks for good").click()
    expect(theirs.get_by_text("Only an owner may share or remove this site.")).to_be_visible()
    assert maker.own(placement)["D"]["fit"] is None
    page.reload()
    page.get_by_role("listitem").filter(has_text="guest").get_by_role(
        "button", name="Withdraw"
    ).click()
    expect(page.get_by_role("listitem").filter(has_text="guest")).to_have_count(0)
    theirs.goto(f"{maker.address}/sites/{site}/placements/{placement}/aim")
    expect(theirs.get_by_text("There is nothing here, or it is not yours to see.")).to_be_visible()
    context.close()


def test_a_step_that_is_gone_to_right_after_a_press_is_stayed_in(page: Page, maker: Maker):
    """The address follows the place a moment later: it must not lead back to the step before."""
    opened(page, maker, "aim")
    for wait_ms in range(146, 226, 5):
        page.evaluate(
            """async (wait) => {
              const press = (e) => e.click();
              const named = (text) => [...document.querySelectorAll('button')].find(
                (b) => b.textContent.trim().startsWith(text));
              const horizon = document.querySelector('[aria-label^="Horizon"]');
              press(horizon.querySelector('button[aria-pressed="false"]'));
              const until = performance.now() + wait;
              while (performance.now() < until) await new Promise((r) => setTimeout(r, 1));
              press(named('Frame'));
            }""",
            wait_ms,
        )
        page.wait_for_timeout(250)
        assert "/frame?" in page.url, wait_ms
        page.get_by_role("navigation", name="Steps").get_by_role("button", name="Aim").click()
        page.wait_for_timeout(250)
