"""Words in a browser: typed and dragged on the banner itself, advice taken, a mark and an inset;
and sets of which just one shows."""

from __future__ import annotations

import re
from collections.abc import Iterator
from typing import Any

import pytest
from accessible import axe_clean
from banners import HEADING, banner, opened, put
from making import Maker, badge, comes, picture, saved
from playwright.sync_api import Page, expect
from skypane import model as m

BOAT = {"Boat": (0.7, 0.3, 0.2, 0.4)}
SAID = {"heading": HEADING, "text": "Every day that the swell allows.", "buttons": []}


@pytest.fixture
def maker(page: Page, address: str) -> Iterator[Maker]:
    made = Maker(page, address)
    yield made
    made.remove_sites()


def bright(
    maker: Maker,
    layout: dict[str, Any] | None = None,
    areas: dict[str, tuple[float, float, float, float]] = BOAT,
    **values: Any,
) -> tuple[int, int]:
    """A site with one banner: white words on a bright picture with a boat on its right."""
    site = maker.site("Reed Quay")
    original = maker.original(site, "quay.jpg", picture(2400, 1500, spots=((0, 0, 1, 1),)), areas)
    held = {"original": original, "height": {"kind": "ratio", "w": 2, "h": 1}}
    page = maker.ask("POST", f"/sites/{site}/pages", data={"title": "Home"})["id"]
    noun = {
        "name": "Quay",
        "kind": "banner",
        "words": SAID,
        "parts": [{"treatments": {"D": held}}],
        "layout": layout or {"D": {"place": "start", "percent": 40}},
        **values,
    }
    made = maker.ask("POST", f"/pages/{page}/placements", data={"placement": noun})
    return site, made["id"]


def test_a_picture_becomes_a_banner_and_is_written_on(page: Page, maker: Maker):
    site = maker.site("Reed Quay")
    original = maker.original(site, "quay.jpg", picture(2400, 1500), BOAT)
    held = {"original": original, "height": {"kind": "ratio", "w": 2, "h": 1}}
    placement = maker.placement(site, "Quay", {"D": held})
    maker.open(site, placement, "width=1100", "words")
    expect(page.get_by_text("Nothing lies on this picture")).to_be_visible()
    page.get_by_role("button", name="Make it a banner").click()
    page.locator("[data-text=heading]").click()
    field = page.get_by_role("textbox", name="The heading", exact=True)
    field.fill("The last light")
    field.press("Enter")
    saved(page)
    kept = maker.kept(placement)["placement"]
    assert (kept["kind"], kept["words"]["heading"]) == ("banner", "The last light")
    # the panes show it as text, whatever it holds
    page.locator("[data-text=heading]").click()
    page.get_by_role("textbox", name="The heading", exact=True).fill(
        "<img src=x onerror=alert(1)> & </style>"
    )
    page.get_by_role("textbox", name="The heading", exact=True).press("Escape")
    frame = page.frame_locator("iframe").first
    expect(frame.locator("h2")).to_have_text("<img src=x onerror=alert(1)> & </style>")
    # undone with one press, as everything
    page.get_by_role("button", name="Undo").click()
    expect(frame.locator("h2")).to_have_text("The last light")
    page.get_by_role("button", name="History").click()
    expect(page.get_by_text("Words", exact=True).last).to_be_visible()


def test_words_are_dragged_to_a_place_and_the_bands_follow(page: Page, maker: Maker):
    site, placement = bright(maker)
    maker.open(site, placement, "width=1280", "words")
    clear = page.get_by_role("img", name=re.compile("Words clear of areas"))
    expect(clear).to_have_attribute("data-here", "clear")
    box = page.locator("[data-text=heading]").bounding_box()
    stage = page.get_by_role("region", name="Ground").bounding_box()
    assert box and stage
    page.mouse.move(box["x"] + 20, box["y"] + 10)
    page.mouse.down()
    page.mouse.move(box["x"] + 60, box["y"] + 10, steps=3)
    page.mouse.move(420, box["y"] + 10, steps=6)
    expect(page.get_by_text("right", exact=True).last).to_be_visible()
    expect(clear).to_have_attribute("data-here", "covered")
    page.mouse.up()
    saved(page)
    assert maker.kept(placement)["placement"]["layout"]["C"] == {"place": "end"}
    expect(page.get_by_role("region", name=re.compile("The words cover Boat"))).to_be_visible()
    # by keys: from the right to the top left
    place = page.get_by_role("radiogroup", name="Place of the words")
    place.get_by_role("radio", name="right", exact=True).focus()
    for key in ("ArrowUp", "ArrowLeft", "ArrowLeft"):
        page.keyboard.press(key)
        page.get_by_role("radio", checked=True).first.focus()
    saved(page)
    kept = maker.kept(placement)["placement"]["layout"]["C"]["place"]
    assert kept in ("top-start", "top", "top-end")


def test_the_least_scrim_is_one_press_and_one_undo_away(page: Page, maker: Maker):
    site, placement = bright(maker)
    maker.open(site, placement, "width=1280", "words")
    readable = page.get_by_role("img", name=re.compile("Text readable"))
    expect(readable).to_have_attribute("data-here", "faint")
    page.get_by_role("button", name=re.compile(r"^Plain scrim \d+ %$")).click()
    expect(readable).to_have_attribute("data-here", "readable")
    saved(page)
    kept = maker.kept(placement)["placement"]["layout"]
    assert kept["C"]["scrim"]["kind"] == "plain" and 0.3 < kept["C"]["strength"] < 0.7
    # what is narrower has nothing of its own, and follows
    assert "scrim" not in kept.get("B", {})
    expect(page.get_by_text(re.compile("C, B, A changed"))).to_be_visible()
    page.get_by_role("button", name="only C").click()
    saved(page)
    kept = maker.kept(placement)["placement"]["layout"]
    assert kept["B"]["scrim"] == {"kind": "none"} and "A" not in kept
    page.get_by_role("button", name="Undo").click()
    # a per cent less, and it no longer can
    page.locator("label").filter(has_text=re.compile("^Under$")).click()
    slider = page.get_by_role("slider", name="Strength of the scrim")
    slider.focus()
    for _ in range(3):
        page.keyboard.press("ArrowLeft")
    expect(readable).to_have_attribute("data-here", "faint")
    for _ in range(2):
        page.get_by_role("button", name="Undo").click()
    expect(readable).to_have_attribute("data-here", "faint")


def test_a_mark_and_an_inset_are_put_on_it(page: Page, maker: Maker):
    site, placement = bright(maker)
    maker.original(site, "badge.png", badge())
    maker.open(site, placement, "width=450", "words")
    page.locator("label").filter(has_text=re.compile("^Mark$")).click()
    page.get_by_role("button", name="Choose a mark…").click()
    page.get_by_role("button", name=re.compile("badge.png")).click()
    saved(page)
    parts = maker.kept(placement)["placement"]["parts"]
    assert [p["role"] for p in parts] == [None, "mark"]
    expect(page.get_by_text("has transparent edges on all four sides")).to_be_visible()
    page.locator("label").filter(has_text=re.compile("^Inset$")).click()
    page.get_by_role("button", name="Boat").click()
    saved(page)
    parts = maker.kept(placement)["placement"]["parts"]
    assert [p["role"] for p in parts] == [None, "mark", "inset"]
    assert parts[0]["treatments"]["A"]["show"] == "colour"
    assert parts[2]["treatments"]["D"]["show"] == "nothing"
    crop = parts[2]["treatments"]["A"]["crop"]
    assert crop["w"] * 2400 == pytest.approx(crop["h"] * 1500, rel=1e-3)
    # in Aim each of them is worked on as a picture is
    page.keyboard.press("Escape")
    page.get_by_role("button", name="Aim", exact=False).first.click()
    page.get_by_role("tab", name="mark").click()
    expect(page.get_by_text("badge.png", exact=True)).to_be_visible()
    # removed again, with all that it said
    page.get_by_role("button", name="Words", exact=False).first.click()
    page.locator("label").filter(has_text=re.compile("^Mark$")).click()
    page.get_by_role("button", name="remove").click()
    saved(page)
    assert [p["role"] for p in maker.kept(placement)["placement"]["parts"]] == [None, "inset"]


def test_bad_input_is_told_at_its_field_and_nothing_is_lost(page: Page, maker: Maker):
    site, placement = bright(maker)
    maker.open(site, placement, "width=700&span=B", "words")
    margin = page.get_by_label("Margin", exact=True)
    margin.fill("320.5")
    said = "A margin of 320.5 px on both sides takes 641 of the"
    expect(page.get_by_text(re.compile(said))).to_be_visible()
    expect(page.get_by_text("Not saved")).to_be_visible()
    margin.fill("20")
    expect(page.get_by_text(re.compile(said))).to_have_count(0)
    page.get_by_role("button", name="Edit…").click()
    text = page.get_by_label("Text", exact=True)
    text.fill("x" * 10_000)
    expect(page.get_by_text(re.compile("10000 characters. At most 2000"))).to_be_visible()
    assert text.input_value() == "x" * 10_000
    text.fill("Short again.")
    page.get_by_role("button", name="+ button").click()
    page.get_by_label("leads to").fill("javascript:alert(1)")
    expect(page.get_by_text(re.compile("A link cannot lead to “javascript:”"))).to_be_visible()
    page.get_by_label("leads to").fill("/crossings")
    saved(page)
    kept = maker.kept(placement)["placement"]["words"]
    assert (kept["text"], kept["buttons"][0]["href"]) == ("Short again.", "/crossings")


def test_guides_lie_over_every_pane(page: Page, maker: Maker):
    site, placement = bright(maker)
    maker.open(site, placement, "width=1280", "words")
    page.locator("label").filter(has_text=re.compile("^thirds$")).click()
    panes = page.locator("iframe")
    drawn = "() => getComputedStyle(document.querySelector('picture'), '::before').backgroundImage"
    for i in range(panes.count()):
        found = comes(
            lambda i=i: panes.nth(i).element_handle().content_frame().evaluate(drawn),
            lambda css: css.count("linear-gradient") == 4,
        )
        assert found.count("linear-gradient") == 4
    page.get_by_role("switch", name="see through").check(force=True)
    faint = "() => getComputedStyle(document.querySelector('.quay-words')).opacity"
    assert comes(
        lambda: panes.first.element_handle().content_frame().evaluate(faint), lambda o: o == "0.45"
    ) == "0.45"  # fmt: skip


@pytest.mark.parametrize("scheme", ["light", "dark"])
def test_axe_finds_nothing_in_words(page: Page, maker: Maker, scheme: str):
    page.emulate_media(color_scheme=scheme)
    site, placement = bright(maker)
    maker.open(site, placement, "width=1280", "words")
    expect(page.get_by_role("button", name=re.compile("scrim"))).to_be_visible()
    axe_clean(page)
    for tab in ("Under", "Mark", "Inset"):
        page.locator("label").filter(has_text=re.compile(f"^{tab}$")).click()
        axe_clean(page)
    page.locator("label").filter(has_text=re.compile("^Words$")).click()
    page.get_by_role("button", name="Edit…").click()
    axe_clean(page)


# -- one of a set --------------------------------------------------------------------------

SHOWN = """async (zoom) => {
  const f = document.getElementById('f');
  f.style.zoom = zoom;
  const out = [];
  const frame = () => new Promise((r) => requestAnimationFrame(r));
  const near = (w) => [599, 600, 1023, 1024].some((b) => Math.abs(w - b) < 3);
  for (let px = Math.ceil(300 * zoom); px <= 1700 * zoom; px++) {
    if (!near(px / zoom) && px % 31) continue;
    f.style.width = `${px / zoom}px`;
    await frame();
    const doc = f.contentDocument;
    const shown = [...doc.querySelectorAll('section')]
      .filter((s) => s.getBoundingClientRect().height > 0).map((s) => s.className);
    const read = [...doc.querySelectorAll('h2')].filter((h) => h.offsetParent).length;
    out.push([px / zoom, shown, read]);
  }
  return out;
}"""


@pytest.mark.parametrize("style", ["max-width", "min-width", "range"])
def test_of_two_heads_exactly_one_shows_at_every_width(browser, shelf, style):
    """300 to 1700 px, zoomed so that widths are fractional: never none, never two; and the words of
    just one are there to be read out."""
    site = m.Site(lists="densities", densities=(1,), formats=("jpeg",), media_style=style)
    snippets, css = [], []
    for name, shows in (
        ("wide", {"D": "picture", "B": "nothing"}),
        ("narrow", {"D": "nothing", "B": "picture"}),
    ):
        held = {k: m.Treatment(show=s, height=m.RatioHeight(w=4, h=1)) for k, s in shows.items()}
        placement = banner({"D": {"percent": 40}}, held).model_copy(update={"name": name})
        put(shelf, placement, site=site)
        html = shelf.things["/banner.html"][0].decode()
        snippets.append(html[html.index("<section") : html.index("</section>") + 10])
        css.append(shelf.things["/picture.css"][0].decode())
    shelf.put("/two.css", "".join(css), "text/css")
    page_html = f'<link rel="stylesheet" href="two.css"><style>body{{margin:0}}</style>{snippets}'
    shelf.put("/two.html", f"<!DOCTYPE html><html><body>{page_html}</body></html>", "text/html")
    around = '<iframe id="f" src="two.html" style="border:0;height:500px"></iframe>'
    page = browser.new_page(viewport={"width": 2400, "height": 800})
    page.goto(shelf.put("/around.html", f"<!DOCTYPE html>{around}", "text/html"))
    page.wait_for_function(
        "document.getElementById('f').contentDocument.querySelectorAll('section').length === 2"
    )
    for zoom in (1, 1.25):
        found = page.evaluate(SHOWN, zoom)
        assert len(found) > 50
        for width, shown, read in found:
            assert shown == ["wide" if width >= 1024 else "narrow"] or (
                1023 < width < 1024 and len(shown) == 1
            ), (width, shown)
            assert read == 1, width
    page.close()


def test_what_is_hidden_is_not_fetched(browser, shelf):
    """A banner that shows nothing on narrow screens: no picture of it is asked for there."""
    held = {"D": m.Treatment(height=m.RatioHeight(w=4, h=1)), "A": m.Treatment(show="nothing")}
    shown = put(shelf, banner({}, held))
    for width, wanted in ((500, 0), (800, 1)):
        asked: list[str] = []
        page = browser.new_page(viewport={"width": width, "height": 800})
        page.on("request", lambda r, asked=asked: asked.append(r.url))
        page.goto(shown.url)
        page.wait_for_load_state("networkidle")
        assert sum("/images/" in url for url in asked) == wanted
        assert page.get_by_text(HEADING).is_visible() == bool(wanted)
        page.close()


def test_words_grow_with_the_readers_own_spacing(browser, shelf):
    """Text spacing as WCAG 2.2, 1.4.12 has it: nothing is cut off, the banner grows."""
    shown = put(shelf, banner({"D": {"percent": 40}, "A": {"percent": 100}}))
    page = opened(browser, shown, 360)
    page.add_style_tag(
        content="* { line-height: 1.5 !important; letter-spacing: .12em !important;"
        " word-spacing: .16em !important } p { margin-bottom: 2em !important }"
    )
    inside = page.evaluate(
        """() => {
          const b = document.querySelector('.quay').getBoundingClientRect();
          return [...document.querySelectorAll('h2, p, a')].every((e) => {
            const r = e.getBoundingClientRect();
            return r.bottom <= b.bottom && r.right <= b.right + 1 && r.left >= b.left;
          });
        }"""
    )
    assert inside
    page.close()


def test_a_sentence_that_asks_for_an_area_leads_to_the_map_and_back(page: Page, maker: Maker):
    site, placement = bright(maker, areas={})
    maker.open(site, placement, "width=450", "words")
    page.locator("label").filter(has_text=re.compile("^Inset$")).click()
    page.get_by_role("button", name="Draw one on the map").click()
    page.wait_for_url("**/aim**")
    expect(page.get_by_role("button", name="drag on the picture…")).to_be_focused()
    expect(page.get_by_role("button", name="back to words")).to_be_visible()
    box = page.locator("img[alt$=', made up']").first.bounding_box()
    assert box is not None
    page.mouse.move(box["x"] + 0.5 * box["width"], box["y"] + 0.4 * box["height"])
    page.mouse.down()
    page.mouse.move(box["x"] + 0.7 * box["width"], box["y"] + 0.8 * box["height"], steps=5)
    page.mouse.up()
    # the area is there to be chosen where the sentence stood
    page.wait_for_url("**/words**")
    inset = page.get_by_role("button", name="Keep area", exact=True)
    expect(inset).to_be_visible()
    inset.click()
    expect(page.get_by_label("Size of the inset")).to_be_visible()


def test_a_finding_leads_to_the_value_that_it_speaks_of(page: Page, maker: Maker):
    """And what a sentence asks for is one press away where it stands: the edges of a mark."""
    site, placement = bright(maker)
    maker.original(site, "badge.png", badge())
    maker.open(site, placement, "width=450", "words")
    page.locator("label").filter(has_text=re.compile("^Mark$")).click()
    page.get_by_role("button", name="Choose a mark…").click()
    page.get_by_role("button", name=re.compile("badge.png")).click()
    edges = page.get_by_text("has transparent edges on all four sides")
    expect(edges).to_be_visible()
    page.get_by_role("button", name="Trim them now").click()
    expect(edges).to_have_count(0)
    saved(page)
    # on the boat it is in the way: the sentence leads from the other tab to its place
    page.get_by_role("radiogroup", name="Place of the mark").get_by_label(
        "middle", exact=True
    ).click()
    page.locator("label").filter(has_text=re.compile("^Words$")).click()
    page.get_by_role("button", name=re.compile("Move the mark to another place")).click()
    place = page.locator("[data-spot~=mark_place]")
    expect(place).to_have_attribute("data-lit", "")
    expect(place.locator(":focus")).to_have_count(1)
