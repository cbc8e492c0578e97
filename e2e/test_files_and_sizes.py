"""Frames with names, ladders on the horizon, files compared, whole sites: in the browser."""

from __future__ import annotations

import io
import json
import random
import re
import zipfile
from collections.abc import Container

import pytest
from accessible import axe_clean
from playwright.sync_api import Page, expect
from skypane.sitefile import SiteFile

#: What these tests work on: the pictures of other placements would only take time to bring.
USED = ("Lighthouse", "Tern", "Four boats", "Keeper's cottage")
_copies: dict[str, bytes] = {}


def copy_of_demo(page: Page, address: str) -> bytes:
    """The demo site as it is taken along, with the placements that are used here."""
    if address not in _copies:
        sites = page.request.get(f"{address}/api/sites").json()
        demo = next(s["id"] for s in sites if s["name"] == "Tern Point")
        zipped = page.request.get(f"{address}/api/sites/{demo}/archive.zip").body()
        _copies[address] = _with_placements(zipped, USED)
    return _copies[address]


def _with_placements(zipped: bytes, names: Container[str]) -> bytes:
    whole = zipfile.ZipFile(io.BytesIO(zipped))
    said = json.loads(whole.read("site.json"))
    for p in said["pages"]:
        p["placements"] = [q for q in p["placements"] if q["name"] in names]
        p["also"], p["layout"] = [], {}
    used = SiteFile.model_validate(said)
    ids = set().union(*(q.original_ids for p in used.pages for q in p.placements))
    said["originals"] = [o for o in said["originals"] if o["id"] in ids]
    files = {f"originals/{o['file']}" for o in said["originals"]}
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as slim:
        slim.writestr("site.json", json.dumps(said))
        for name in files:
            slim.writestr(name, whole.read(name))
    return out.getvalue()


def brought_in(page: Page, address: str) -> str:
    """Some of the demo site, brought in as a zip: the address of the copy."""
    zipped = copy_of_demo(page, address)
    page.goto(address)
    with page.expect_file_chooser() as chooser:
        page.get_by_role("button", name="Import…").click()
    chooser.value.set_files({"name": "site.zip", "mimeType": "application/zip", "buffer": zipped})
    page.wait_for_url(re.compile(r"/sites/\d+/placements"), timeout=60_000)
    return f"{address}/sites/{re.search(r'/sites/([0-9]+)', page.url)[1]}"


def removed(page: Page, site: str) -> None:
    token = next(c["value"] for c in page.context.cookies() if c["name"] == "csrftoken")
    api = site.replace("/sites/", "/api/sites/")
    page.request.delete(api, headers={"X-CSRFToken": token})


@pytest.fixture
def own_site(page: Page, address: str):
    """A copy for one test alone."""
    made = brought_in(page, address)
    yield made
    removed(page, made)


_shared: dict[str, str] = {}


@pytest.fixture
def site(page: Page, address: str):
    """The copy that the others share: each works on placements, or on a part of the settings, of
    its own. The last one changes the breakpoints."""
    if address not in _shared:
        _shared[address] = brought_in(page, address)
    return _shared[address]


def placement(page: Page, site: str, name: str) -> str:
    rows = page.request.get(site.replace("/sites/", "/api/sites/") + "/placements").json()
    return f"{site}/placements/{next(r['id'] for r in rows if r['name'] == name)}"


def test_a_frame_is_named_changed_in_site_and_left(page: Page, site: str):
    page.goto(placement(page, site, "Tern") + "/frame?span=D")
    page.get_by_role("button", name="name it…").click()
    page.get_by_label("A name for this frame").fill("wide strip")
    page.get_by_role("button", name="Name it", exact=True).click()
    frame = page.get_by_label("Named frame of this placement", exact=True).first
    expect(frame).to_have_value("wide strip")
    expect(page.get_by_text("from frame D").first).to_be_visible()
    # another placement takes it
    page.goto(placement(page, site, "Four boats") + "/frame?span=D")
    page.get_by_label("Named frame of this placement", exact=True).first.click()
    page.get_by_role("option", name="wide strip").click()
    expect(page.get_by_text("also on 1 placement")).to_be_visible()
    # changed in one place
    page.goto(f"{site}/settings")
    frames = page.get_by_role("region", name="Frames")
    expect(frames.get_by_text("used by Crossings · Four boats, The Island · Tern")).to_be_visible()
    editor = page.get_by_role("region", name="Frame wide strip")
    editor.get_by_role("button", name="420 px").first.click()
    page.get_by_label("Height", exact=True).fill("333")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    axe_clean(page)
    page.goto(placement(page, site, "Four boats") + "/frame?span=D")
    expect(page.get_by_role("row").filter(has_text="from 1600")).to_contain_text("333 px")
    page.get_by_role("button", name="part from it").click()
    expect(page.get_by_role("button", name="name it…")).to_be_visible()
    expect(page.get_by_role("row").filter(has_text="from 1600")).to_contain_text("333 px")
    axe_clean(page)


def test_percentage_columns_say_their_sum_and_where_they_wrap(page: Page, site: str):
    page.goto(placement(page, site, "Four boats") + "/frame?span=D")
    page.get_by_role("radiogroup", name="Width rule").get_by_text("% columns").click()
    expect(page.get_by_text("(100/3 − 2·1) % of 1080 = 338.4").first).to_be_visible()
    page.get_by_label("Width of each column").fill("33.3")
    expect(page.get_by_text("3 × (33.3 + 2) = 105.9 %: column 3 wraps").first).to_be_visible()
    page.get_by_role("radiogroup", name="Whether the padding").get_by_text("inside").click()
    expect(page.get_by_text("3 × 33.3 = 99.9 %").first).to_be_visible()
    expect(page.get_by_text("column 3 wraps")).to_be_hidden()
    expect(page.get_by_role("img", name=re.compile("Frame width: widest at"))).to_be_visible()


def test_widths_are_moved_on_the_horizon_and_their_cost_is_seen(page: Page, site: str):
    page.goto(placement(page, site, "Lighthouse") + "/files?span=B")
    card = page.get_by_role("region", name="Widths to export")
    expect(card.get_by_role("heading")).to_contain_text("2 widths for")
    card.get_by_role("radio", name=re.compile("^3 files")).click()
    expect(card.get_by_text("3 in every ladder here, by your choice.")).to_be_visible()
    expect(page.get_by_role("row").filter(has_text="lighthouse--b@")).to_have_count(3)
    # by keys on the horizon: from now on they are the designer's own
    ends = re.compile("the last viewport width that takes it")
    end = page.get_by_role("slider", name=ends).first  # A shows no picture: it is of B
    before = end.get_attribute("aria-label")
    end.press("Shift+ArrowRight")
    expect(card.get_by_text("Your own widths.")).to_be_visible()
    expect(page.get_by_role("slider", name=before, exact=True)).to_have_count(0)
    card.get_by_label("Another width in px").fill("900")
    card.get_by_label("Another width in px").press("Enter")
    expect(page.get_by_role("row").filter(has_text="--b@900w")).to_be_visible()
    card.get_by_role("button", name="Drop 900 px").click()
    expect(page.get_by_role("row").filter(has_text="--b@900w")).to_be_hidden()
    card.get_by_role("button", name="Work them out again").click()
    expect(card.get_by_text("Your own widths.")).to_be_hidden()
    axe_clean(page)


def test_a_file_is_laid_on_the_picture_without_loss(page: Page, site: str):
    # a likeness that no file has been made for yet, by an earlier run neither
    likeness = f"0.94{random.randrange(10, 100)}"
    page.goto(f"{site}/settings")
    page.get_by_label("SSIM that every file reaches").fill(likeness)
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.goto(placement(page, site, "Keeper's cottage") + "/files?span=D")
    page.get_by_role("button", name="Quick look").click()
    expect(page.get_by_text("A quick look: export for what is handed over.")).to_be_visible(
        timeout=120_000
    )
    expect(page.get_by_role("button", name=re.compile("≈")).first).to_be_visible()
    page.get_by_role("button", name="Export", exact=True).click()
    page.get_by_role("link", name="Download zip").wait_for(timeout=120_000)
    page.locator("table tbody tr").last.get_by_role("button").first.click()
    expect(page.get_by_text(re.compile(r"SSIM 0\.9\d+ · quality"))).to_be_visible()
    line = page.get_by_role("slider", name="Where left ends and right begins")
    line.press("ArrowRight")
    expect(line).to_have_attribute("aria-valuenow", "51")
    page.get_by_role("switch", name="where the right one differs").click()
    for name in ("Left", "Right", "Where it differs"):
        image = page.get_by_role("img", name=name, exact=True)
        expect(image).to_be_visible()
        page.wait_for_function("i => i.complete && i.naturalWidth > 0", arg=image.element_handle())
    axe_clean(page)


def test_the_whole_site_is_one_press_and_each_run_says_what_changed(page: Page, own_site: str):
    site = own_site
    # small files and few, so that this takes seconds
    page.goto(f"{site}/settings")
    page.get_by_label("Widest viewport").fill("700")
    page.get_by_label("Breakpoints").fill("599")
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.goto(f"{site}/deliveries")
    expect(page.get_by_text("Nothing exported yet.")).to_be_visible()
    page.get_by_role("button", name="Export the whole site").click()
    page.get_by_role("link", name="Download zip").wait_for(timeout=300_000)
    page.goto(f"{site}/settings")
    page.get_by_role("radiogroup", name="How like files are").get_by_text("light").click()
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    page.goto(f"{site}/deliveries")
    page.get_by_role("button", name="Export the whole site").click()
    expect(page.get_by_role("link", name="Download zip")).to_have_count(2, timeout=300_000)
    # no file is heavier; one may come or go, of a format that was not worth it, or no longer is
    said = re.compile(r"Since the delivery before: (?!.*heavier).*\b\d+ lighter.* less")
    page.get_by_role("button", name=said).click()
    expect(page.get_by_text(re.compile("lighter, .* → ")).first).to_be_visible()
    axe_clean(page)
    page.get_by_role("button", name="Clear…").click()
    expect(page.get_by_text("1 delivery that a later one stands in for")).to_be_visible()
    page.get_by_role("dialog").get_by_role("button", name=re.compile("^Clear")).click()
    expect(page.get_by_role("link", name="Download zip")).to_have_count(1)
    with page.expect_download() as download:
        page.get_by_role("link", name="Download zip").click()
    archive = zipfile.ZipFile(io.BytesIO(download.value.path().read_bytes()))
    assert json.loads(archive.read("manifest.json"))["likeness"] == 0.935


def test_the_audience_is_edited_brought_and_refused_with_a_line(page: Page, site: str):
    page.goto(f"{site}/settings")
    audience = page.get_by_role("region", name="Audience")
    with page.expect_file_chooser() as chooser:
        audience.get_by_role("button", name="Bring a CSV…").click()
    table = b"width,height,density,weight\n390,844,x,1"
    bad = {"name": "a.csv", "mimeType": "text/csv", "buffer": table}
    chooser.value.set_files(bad)
    expect(audience.get_by_text("Line 2, density: “x” is no number.")).to_be_visible()
    with page.expect_file_chooser() as chooser:
        audience.get_by_role("button", name="Bring a CSV…").click()
    good = {"name": "a.csv", "mimeType": "text/csv", "buffer": b"390;844;3;60\n1440;900;1,5;40"}
    chooser.value.set_files(good)
    expect(audience.get_by_label("weight of row 1", exact=True)).to_have_value("60")
    expect(audience.get_by_label("weight of row 3", exact=True)).to_have_count(0)
    page.get_by_role("button", name="Save").click()
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()


def test_widths_are_found_in_css_and_taken_into_the_form(page: Page, address: str, site: str):
    page.goto(f"{site}/settings")
    found = page.get_by_role("region", name="From your CSS")
    found.get_by_label("A stylesheet").fill("nothing { color: red }")
    found.get_by_role("button", name="Look for widths").click()
    expect(found.get_by_text("there is no media query")).to_be_visible()
    found.get_by_label("A stylesheet").fill(
        "@media (max-width: 480px) { a {} } @media (min-width: 900px) { .page { max-width: 960px;"
        " padding: 0 12px } .cards { grid-template-columns: repeat(4, 1fr); gap: 24px } }"
    )
    found.get_by_role("button", name="Look for widths").click()
    for label in ("480 px", "899 px", "960 px", "12 px", "24 px", "4 · 1×"):
        found.get_by_label(re.compile(f"^{re.escape(label)}")).check()
    found.get_by_role("button", name="Take into the form").click()
    expect(page.get_by_label("Breakpoints")).to_have_value("480, 899")
    expect(page.get_by_label("Greatest width of the container")).to_have_value("960")
    page.get_by_role("button", name="Save").click()
    # the new frame comes with the form and is carried over to the new spans, as all others are
    expect(page.get_by_text("Saved", exact=True)).to_be_visible()
    expect(page.get_by_label("Name of the frame one of 4 columns")).to_be_visible()
    axe_clean(page)
    removed(page, _shared.pop(address))
